'use client';

import { Popover } from 'radix-ui';
import { useState } from 'react';
import { later } from '../../parts/later.tsx';
import { useWorkbench } from '../../state/workbench.ts';

const RouteList = later(
  () => import('./route-list.tsx').then((m) => m.RouteList),
  () => <p className="px-3 py-2 text-soft">Listing the routes …</p>,
);

/** The landing that is looked at: one of the app's routes, found by typing. */
export function RouteChoice() {
  const route = useWorkbench((s) => s.route);
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        role="combobox"
        aria-label={`moment: landing on: ${route}`}
        aria-expanded={open}
        className="flex min-h-11 min-w-0 flex-col items-start justify-center border-r border-line px-3.5 text-left hover:bg-band"
      >
        <span className="text-[11px] leading-tight whitespace-nowrap text-soft">moment: landing on</span>
        <span className="max-w-56 truncate leading-tight font-medium">{route}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={2}
          collisionPadding={8}
          aria-label="Routes"
          className="z-50 w-[380px] rounded border border-line bg-sheet shadow-lg"
        >
          <RouteList onDone={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
