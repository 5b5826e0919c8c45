'use client';

import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import type { LandingView } from '../../../worker/views.ts';
import { later } from '../../parts/later.tsx';
import type { StripFigure } from './figures.ts';

const Contents = later(
  () => import('./contents.tsx').then((m) => m.Contents),
  () => <p className="text-soft">A moment …</p>,
);

/** A figure that unfolds into what it is made of, which is fetched with the first look at it. */
export function Behind({
  label,
  of,
  view,
  children,
}: {
  /** The figure as it is written, and what stands behind it. */
  label: string;
  of: StripFigure;
  view: LandingView;
  children: ReactNode;
}) {
  return (
    <Popover.Root>
      <Popover.Trigger aria-label={label} className="border-b border-dotted border-faint text-left hover:border-ink">
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={28}
          collisionPadding={8}
          aria-label={label}
          className="z-50 max-h-[70vh] w-[420px] overflow-y-auto rounded border border-ink bg-sheet px-4 pt-3 pb-4 shadow-lg"
        >
          <Contents of={of} view={view} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
