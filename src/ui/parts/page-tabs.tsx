'use client';

import { Tabs } from 'radix-ui';
import { type ReactNode, useState } from 'react';

const TAB =
  'border-b-2 border-transparent px-1 whitespace-nowrap pt-2.5 pb-1.5 text-soft data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink';

/** Pages of a station, one at a time. */
export function PageTabs({
  label,
  first,
  pages,
  page: given,
  onPage,
  beside,
}: {
  label: string;
  first: string;
  pages: { id: string; words: string; content: ReactNode }[];
  /** For whoever turns the pages from elsewhere as well. */
  page?: string;
  onPage?: (page: string) => void;
  /** At the right of the tabs. */
  beside?: ReactNode;
}) {
  const [own, setOwn] = useState(first);
  // One that an address names and that isn't there.
  const page = pages.some((p) => p.id === given) ? given! : own;
  const setPage = onPage ?? setOwn;
  return (
    <Tabs.Root value={page} onValueChange={setPage} className="flex h-full min-h-0 flex-col">
      <div className="flex flex-wrap items-end border-b border-line">
        <Tabs.List aria-label={label} className="flex flex-wrap gap-x-5 px-4">
          {pages.map((p) => (
            <Tabs.Trigger key={p.id} value={p.id} className={TAB}>
              {p.words}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {beside}
      </div>
      {pages.map((p) => (
        <Tabs.Content key={p.id} value={p.id} className="min-h-0 min-w-0 flex-1 overflow-x-auto">
          {p.content}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}
