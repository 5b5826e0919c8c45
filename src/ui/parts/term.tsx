'use client';

import { Tooltip } from 'radix-ui';
import type { ReactNode } from 'react';
import { TERMS, type TermName } from './terms.ts';

/** A word with its meaning, told to whoever points at it or comes to it by keyboard. */
export function Term({ of, means, children }: { of?: TermName; means?: string; children: ReactNode }) {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>
        <span
          // biome-ignore lint/a11y/noNoninteractiveTabindex: its meaning has to be reachable by keyboard
          tabIndex={0}
          className="cursor-help decoration-faint decoration-dotted underline-offset-2 hover:underline focus-visible:underline"
        >
          {children}
        </span>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={4}
          collisionPadding={8}
          className="z-50 max-w-72 rounded border border-ink bg-sheet px-2.5 py-1.5 text-[12px] leading-snug shadow-lg"
        >
          {means ?? (of ? TERMS[of] : '')}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}

/** Around everything that has terms in it. */
export const TermsProvider = ({ children }: { children: ReactNode }) => (
  <Tooltip.Provider delayDuration={250}>{children}</Tooltip.Provider>
);
