'use client';

import { useEffect, useRef, useState } from 'react';
import { create } from 'zustand';
import { type Dropped, takeDrop } from '../state/dropped.ts';

/** Whether the dialog is open, and what was dropped on the page. */
export const useReadDialog = create<{ open: boolean; dropped: Dropped | null }>()(() => ({
  open: false,
  dropped: null,
}));

/** Takes whatever is dropped anywhere on the page into the dialog; gives whether something hangs over the page. */
export function useDrop(onTrouble: (words: string) => void): boolean {
  const [over, setOver] = useState(false);
  const refuse = useRef(onTrouble);
  useEffect(() => {
    const holdsFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;
    const onOver = (event: DragEvent) => {
      if (!holdsFiles(event)) return;
      event.preventDefault();
      setOver(true);
    };
    const onLeave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false);
    };
    const onDrop = (event: DragEvent) => {
      if (!event.dataTransfer || !holdsFiles(event)) return;
      event.preventDefault();
      setOver(false);
      takeDrop(event.dataTransfer).then(
        (dropped) => useReadDialog.setState({ open: true, dropped }),
        (error: Error) => refuse.current(error.message),
      );
    };
    addEventListener('dragover', onOver);
    addEventListener('dragleave', onLeave);
    addEventListener('drop', onDrop);
    return () => {
      removeEventListener('dragover', onOver);
      removeEventListener('dragleave', onLeave);
      removeEventListener('drop', onDrop);
    };
  }, []);
  return over;
}
