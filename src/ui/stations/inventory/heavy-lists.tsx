'use client';

import { Tabs } from 'radix-ui';
import type { ReactNode } from 'react';
import type { Sizes } from '../../../core/inventory/inventory.ts';
import type { FullInventory } from '../../../worker/views.ts';
import { CopyList } from './lists/copy-list.tsx';
import { LeftOutList } from './lists/left-out-list.tsx';
import { ModuleList } from './lists/module-list.tsx';
import { NamedFiles } from './lists/named-files.tsx';
import { PackageTable } from './lists/package-table.tsx';
import { Troubles } from './lists/troubles.tsx';
import { UnusedStyles } from './lists/unused-styles.tsx';

const TAB =
  'border-b-2 border-transparent pb-1 text-soft data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink';

/** Heaviest packages and modules, what is shipped twice or in vain, and what couldn't be read. */
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
  const { packages, modules, copies, unusedStyles, routes, failed, named } = inventory;
  const lost = inventory.unresolved.filter((u) => !u.leftOut);
  const leftOut = inventory.unresolved.filter((u) => u.leftOut);
  const troubles = lost.length + failed.length;
  const rules = unusedStyles.reduce((sum, s) => sum + s.rules.length, 0);
  const list = (props: { chosen: string | null; onChoose: (path: string) => void }) => (
    <ModuleList modules={modules} routes={routes.length} kind={kind} {...props} />
  );
  const tabs: { id: string; words: string; content: ReactNode }[] = [
    {
      id: 'packages',
      words: plural(packages.length, 'package'),
      content: <PackageTable packages={packages} routes={routes.length} kind={kind} />,
    },
    { id: 'modules', words: plural(modules.length, 'module'), content: list({ chosen, onChoose }) },
  ];
  if (named.length > 0)
    tabs.push({ id: 'inside', words: `${plural(named.length, 'file')} inside`, content: <NamedFiles files={named} /> });
  if (copies.length > 0)
    tabs.push({
      id: 'copies',
      words: `${copies.length} in several files`,
      content: <CopyList copies={copies} onChoose={onChoose} />,
    });
  tabs.push({
    id: 'styles',
    words: rules === 0 ? 'no unused rules' : plural(rules, 'unused rule'),
    content: <UnusedStyles sheets={unusedStyles} routes={routes.length} onChoose={onChoose} />,
  });
  if (leftOut.length > 0)
    tabs.push({ id: 'left out', words: `${leftOut.length} left out`, content: <LeftOutList imports={leftOut} /> });
  tabs.push({
    id: 'troubles',
    words: troubles === 0 ? 'nothing unread' : `${troubles} not read`,
    content: <Troubles unresolved={lost} failed={failed} />,
  });
  return (
    <Tabs.Root defaultValue="packages" className="mt-6">
      <Tabs.List aria-label="Lists" className="mb-2 flex flex-wrap gap-x-5 border-b border-line">
        {tabs.map((t) => (
          <Tabs.Trigger key={t.id} value={t.id} className={TAB}>
            {t.words}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {tabs.map((t) => (
        <Tabs.Content key={t.id} value={t.id}>
          {t.content}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}

function plural(n: number, what: string): string {
  return `${n} ${what}${n === 1 ? '' : 's'}`;
}
