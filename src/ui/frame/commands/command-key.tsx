'use client';

import { useEffect, useState } from 'react';
import { later } from '../../parts/later.tsx';

const CommandSheet = later(() => import('./command-sheet.tsx').then((m) => m.CommandSheet));

/** Opens the list of commands; its code is fetched with the first look at it. */
export function CommandKey() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey || event.key.toLowerCase() !== 'k')
        return;
      event.preventDefault();
      setOpen(true);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
  return open ? <CommandSheet onClose={() => setOpen(false)} /> : null;
}
