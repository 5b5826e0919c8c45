import { Outlet } from 'react-router';
import { useState, useEffect } from 'react';
import { Dialog, DialogTrigger, DialogContent } from './ui';
import { CommandPalette } from './palette';
import { Help } from './help';
export function Shell() {
  const [palette, setPalette] = useState(false);
  useEffect(() => { const f = (e: KeyboardEvent) => { if (e.key === 'k') setPalette((p) => !p); }; window.addEventListener('keydown', f); return () => window.removeEventListener('keydown', f); }, []);
  return <><header><Dialog><DialogTrigger>Help</DialogTrigger><DialogContent><Help /></DialogContent></Dialog></header><Outlet />{palette ? <CommandPalette onClose={() => setPalette(false)} /> : null}</>;
}
