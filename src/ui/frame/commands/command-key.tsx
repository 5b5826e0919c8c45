'use client';

import dynamic from 'next/dynamic';
import { useEffect } from 'react';
import { create } from 'zustand';

export const useCommandSheet = create<{ open: boolean }>()(() => ({ open: false }));

const CommandSheet = dynamic(() => import('./command-sheet.tsx').then((m) => m.CommandSheet), { ssr: false });

/** Opens the list of commands; its code is fetched with the first look at it. */
export function CommandKey() {
  const open = useCommandSheet((s) => s.open);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey || event.key.toLowerCase() !== 'k')
        return;
      event.preventDefault();
      useCommandSheet.setState({ open: true });
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
  return open ? <CommandSheet onClose={() => useCommandSheet.setState({ open: false })} /> : null;
}
