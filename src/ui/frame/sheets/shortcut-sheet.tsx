'use client';

import { Modal } from '../../parts/modal.tsx';
import { SHORTCUTS } from '../shortcuts.ts';
import { closeSheet } from './open-sheet.ts';

export function ShortcutSheet() {
  return (
    <Modal title="Keys" width="middle" onClose={closeSheet}>
      <dl className="grid grid-cols-[110px_1fr] gap-y-1.5">
        {SHORTCUTS.map((s) => (
          <div key={s.keys} className="contents">
            <dt className="font-mono text-xs leading-5">{s.keys}</dt>
            <dd className="text-soft">{s.does}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  );
}
