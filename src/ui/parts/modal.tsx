'use client';

import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

const WIDTHS = { narrow: 'w-80', middle: 'w-96', wide: 'w-[440px]' } as const;

/** A dialog over the workbench: title, a sentence where one helps, and what it asks or tells. */
export function Modal({
  title,
  about,
  width,
  onClose,
  children,
}: {
  title: string;
  about?: string;
  width: keyof typeof WIDTHS;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          {...(about ? {} : { 'aria-describedby': undefined })}
          className={`fixed top-24 left-1/2 z-50 -translate-x-1/2 rounded border border-line bg-sheet p-5 shadow-xl ${WIDTHS[width]}`}
        >
          <Dialog.Title className="text-base font-semibold">{title}</Dialog.Title>
          {about ? <Dialog.Description className="mt-1 text-soft">{about}</Dialog.Description> : null}
          <div className="mt-3">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** The row that ends a form in a dialog. */
export function ModalButtons({
  stop,
  onStop,
  go,
  ready,
}: {
  stop: string;
  onStop: () => void;
  go: string;
  ready: boolean;
}) {
  return (
    <div className="mt-4 flex justify-end gap-2">
      <button type="button" onClick={onStop} className="rounded border border-line px-3 py-1.5">
        {stop}
      </button>
      <button
        type="submit"
        disabled={!ready}
        className="rounded bg-ink px-3 py-1.5 font-medium text-on-ink disabled:opacity-40"
      >
        {go}
      </button>
    </div>
  );
}
