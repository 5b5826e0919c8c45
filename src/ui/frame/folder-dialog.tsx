'use client';

import { useState } from 'react';
import type { ReadingState } from '../../server/reading-jobs.ts';
import { Modal, ModalButtons } from '../parts/modal.tsx';
import { api } from '../state/api.ts';
import { follow, progressWords, troubleWords } from '../state/reading.ts';

/** Asks for a folder on this machine and reads it into a new project. */
export function FolderDialog({ onClose, onRead }: { onClose: () => void; onRead: (id: string) => void }) {
  const [folder, setFolder] = useState('');
  const [running, setRunning] = useState<ReadingState | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const read = async () => {
    setTrouble(null);
    try {
      const end = await follow({ folder: folder.trim() }, setRunning);
      if (end.state === 'done' && end.projectId) {
        onClose();
        onRead(end.projectId);
      } else setTrouble(end.state === 'stopped' ? 'Stopped. Nothing was kept.' : troubleWords(end));
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
    setRunning(null);
  };
  const stop = () => {
    if (running) void api.stopReading(running.id);
  };
  const busy = running !== null;
  return (
    <Modal
      title="Read a folder on this machine"
      about="The folder with index.html or package.json. Its code is read, never run, and nothing outside of it is touched."
      width="wide"
      onClose={() => {
        stop();
        onClose();
      }}
    >
      <form
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
        {running ? (
          <div className="mt-3" role="status">
            <p className="text-soft">{progressWords(running)}</p>
            <div className="mt-1 h-1.5 bg-line">
              <div
                className="h-full bg-needed"
                style={{ width: `${(running.read / Math.max(1, running.known)) * 100}%` }}
              />
            </div>
          </div>
        ) : null}
        {trouble ? (
          <p role="alert" className="mt-2 text-worse">
            {trouble}
          </p>
        ) : null}
        <ModalButtons
          stop={busy ? 'Stop' : 'Cancel'}
          onStop={busy ? stop : onClose}
          go="Read it"
          ready={!busy && folder.trim() !== ''}
        />
      </form>
    </Modal>
  );
}
