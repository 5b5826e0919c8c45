'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import type { ModuleRow, Sizes } from '../../../../core/inventory/inventory.ts';
import { size } from '../../../parts/format.ts';
import { travels } from './travels.ts';

const LINE = 25;

/** All modules, heaviest first; only what is in sight is drawn. */
export function ModuleList({
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
