'use client';

import { Dialog } from 'radix-ui';
import { SHORTCUTS, useShortcutSheet } from './shortcuts.ts';

export function ShortcutSheet() {
  const open = useShortcutSheet((s) => s.open);
  return (
    <Dialog.Root open={open} onOpenChange={(next) => useShortcutSheet.setState({ open: next })}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-24 left-1/2 z-50 w-96 -translate-x-1/2 rounded border border-line bg-sheet p-5 shadow-xl"
        >
          <Dialog.Title className="mb-3 text-base font-semibold">Keys</Dialog.Title>
          <dl className="grid grid-cols-[110px_1fr] gap-y-1.5">
            {SHORTCUTS.map((s) => (
              <div key={s.keys} className="contents">
                <dt className="font-mono text-xs leading-5">{s.keys}</dt>
                <dd className="text-soft">{s.does}</dd>
              </div>
            ))}
          </dl>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
