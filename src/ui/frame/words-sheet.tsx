'use client';

import { create } from 'zustand';
import { Modal } from '../parts/modal.tsx';
import { TERMS } from '../parts/terms.ts';

export const useWordsSheet = create<{ open: boolean }>()(() => ({ open: false }));

/** All words of the workbench and what they mean. */
export function WordsSheet() {
  const open = useWordsSheet((s) => s.open);
  if (!open) return null;
  return (
    <Modal title="Words" width="wide" onClose={() => useWordsSheet.setState({ open: false })}>
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
