'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { Tabs } from 'radix-ui';
import { useRef } from 'react';
import type { ModuleRow, PackageRow, Sizes } from '../../../core/inventory/inventory.ts';
import type { FullInventory } from '../../../worker/analyst.ts';
import { size } from '../../parts/format.ts';

const LINE = 25;
const TAB =
  'border-b-2 border-transparent pb-1 text-soft data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink';

/** Heaviest packages, heaviest modules, and what couldn't be read. */
export function HeavyLists({
  inventory,
  kind,
  chosen,
  onChoose,
}: {
  inventory: FullInventory;
  kind: keyof Sizes;
  chosen: string | null;
  onChoose: (path: string) => void;
}) {
  const troubles = inventory.unresolved.length + inventory.failed.length;
  return (
    <Tabs.Root defaultValue="packages" className="mt-6">
      <Tabs.List aria-label="Lists" className="mb-2 flex gap-5 border-b border-line">
        <Tabs.Trigger value="packages" className={TAB}>
          {inventory.packages.length} packages
        </Tabs.Trigger>
        <Tabs.Trigger value="modules" className={TAB}>
          {inventory.modules.length} modules
        </Tabs.Trigger>
        <Tabs.Trigger value="troubles" className={TAB}>
          {troubles === 0 ? 'nothing unread' : `${troubles} not read`}
        </Tabs.Trigger>
      </Tabs.List>
      <Tabs.Content value="packages">
        <PackageTable packages={inventory.packages} routes={inventory.routes.length} kind={kind} />
      </Tabs.Content>
      <Tabs.Content value="modules">
        <ModuleList
          modules={inventory.modules}
          routes={inventory.routes.length}
          kind={kind}
          chosen={chosen}
          onChoose={onChoose}
        />
      </Tabs.Content>
      <Tabs.Content value="troubles">
        <Troubles inventory={inventory} />
      </Tabs.Content>
    </Tabs.Root>
  );
}

function travels(routes: number, all: number): string {
  return routes === 0 ? 'no start' : routes === all ? 'every start' : `${routes} of ${all} starts`;
}

function PackageTable({ packages, routes, kind }: { packages: PackageRow[]; routes: number; kind: keyof Sizes }) {
  if (packages.length === 0) return <p className="text-soft">The app uses no packages.</p>;
  return (
    <table className="w-full">
      <tbody>
        {packages.map((p) => (
          <tr key={p.name} className="hover:bg-band">
            <td className="py-[3px] font-medium">{p.name}</td>
            <td className={p.versions.length > 1 ? 'text-worse' : 'text-soft'}>
              {p.versions.length > 1 ? `${p.versions.length} versions: ` : ''}
              {p.versions.map((v) => v ?? 'no version').join(', ')}
            </td>
            <td className="text-right text-soft">
              {p.modules} {p.modules === 1 ? 'module' : 'modules'}
            </td>
            <td className="w-24 text-right">{size(p.sizes[kind])}</td>
            <td className="w-32 pr-1.5 text-right text-soft" title={p.routes.join(', ')}>
              {travels(p.routes.length, routes)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function ModuleList({
  modules,
  routes,
  kind,
  chosen,
  onChoose,
}: {
  modules: ModuleRow[];
  routes: number;
  kind: keyof Sizes;
  chosen: string | null;
  onChoose: (path: string) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: modules.length,
    getScrollElement: () => box.current,
    estimateSize: () => LINE,
    overscan: 10,
  });
  return (
    <div ref={box} className="h-72 overflow-y-auto">
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const m = modules[item.index];
          return (
            <button
              type="button"
              key={m.path}
              onClick={() => onChoose(m.path)}
              aria-pressed={m.path === chosen}
              className={`absolute inset-x-0 grid grid-cols-[minmax(0,1fr)_96px_128px] items-center pr-1.5 text-left ${m.path === chosen ? 'bg-mark' : 'hover:bg-band'}`}
              style={{ top: item.start, height: LINE }}
            >
              <span className="truncate">{m.path}</span>
              <span className="text-right">{size(m.sizes[kind])}</span>
              <span className="text-right text-soft">{travels(m.routes, routes)}</span>
            </button>
          );
        })}
      </div>
    </div>
  );
}

function Troubles({ inventory }: { inventory: FullInventory }) {
  if (inventory.unresolved.length + inventory.failed.length === 0) {
    return <p className="text-soft">Every import was found and every module could be read.</p>;
  }
  return (
    <ul>
      {inventory.failed.map((f) => (
        <li key={`${f.path}:${f.line} ${f.message}`} className="border-b border-line py-1">
          <span className="font-medium">
            {f.path}:{f.line}
          </span>{' '}
          <span className="text-soft">{f.message}</span>
        </li>
      ))}
      {inventory.unresolved.map((u) => (
        <li key={`${u.from}:${u.line} ${u.specifier}`} className="border-b border-line py-1">
          <span className="font-medium">
            {u.from}:{u.line}
          </span>{' '}
          imports {u.specifier} <span className="text-soft">{u.reason}</span>
        </li>
      ))}
    </ul>
  );
}
