'use client';

import { Modal } from '../../parts/modal.tsx';
import { TERMS } from '../../parts/terms.ts';
import { closeSheet } from './open-sheet.ts';

/** All words of the workbench and what they mean. */
export function WordsSheet() {
  return (
    <Modal title="Words" width="wide" onClose={closeSheet}>
      {/* A long list is scrolled by keys, so it takes the focus. */}
      <dl className="max-h-[60vh] overflow-y-auto" tabIndex={0}>
        {Object.entries(TERMS).map(([word, means]) => (
          <div key={word} className="border-t border-line py-1.5 first:border-t-0">
            <dt className="font-semibold">{word}</dt>
            <dd className="text-soft">{means}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  );
}
