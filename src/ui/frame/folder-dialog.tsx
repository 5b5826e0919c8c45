'use client';

import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { api } from '../state/api.ts';

/** Asks for a folder on this machine and reads it into a new project. */
export function FolderDialog({ onClose, onRead }: { onClose: () => void; onRead: (id: string) => void }) {
  const [folder, setFolder] = useState('');
  const [state, setState] = useState<'asking' | 'reading' | string>('asking');
  const read = async () => {
    setState('reading');
    try {
      const { id } = await api.readFolder(folder.trim());
      onClose();
      onRead(id);
    } catch (error) {
      setState(error instanceof Error ? error.message : String(error));
    }
  };
  const busy = state === 'reading';
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content className="fixed top-24 left-1/2 z-50 w-[440px] -translate-x-1/2 rounded border border-line bg-sheet p-5 shadow-xl">
          <Dialog.Title className="text-base font-semibold">Read a folder on this machine</Dialog.Title>
          <Dialog.Description className="mt-1 text-soft">
            The folder with index.html or package.json. Its code is read, never run, and nothing outside of it is
            touched.
          </Dialog.Description>
          <form
            className="mt-3"
            onSubmit={(event) => {
              event.preventDefault();
              void read();
            }}
          >
            <label htmlFor="folder" className="block text-soft">
              Whole path
            </label>
            <input
              id="folder"
              value={folder}
              disabled={busy}
              spellCheck={false}
              onChange={(event) => setFolder(event.target.value)}
              className="mt-1 w-full rounded border border-line bg-paper px-2 py-1.5 font-mono text-xs"
            />
            {busy ? (
              <p className="mt-2 text-soft">Reading and weighing the modules. A large app takes up to a minute.</p>
            ) : null}
            {!busy && state !== 'asking' ? (
              <p role="alert" className="mt-2 text-worse">
                {state}
              </p>
            ) : null}
            <div className="mt-4 flex justify-end gap-2">
              <button type="button" onClick={onClose} className="rounded border border-line px-3 py-1.5">
                Cancel
              </button>
              <button
                type="submit"
                disabled={busy || folder.trim() === ''}
                className="rounded bg-ink px-3 py-1.5 font-medium text-on-ink disabled:opacity-40"
              >
                Read it
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
