'use client';

import dynamic from 'next/dynamic';
import { useNoticesWanted } from './toast.ts';

const OwnToaster = dynamic(() => import('./toaster.tsx').then((m) => m.OwnToaster), { ssr: false });

/** Where notices appear, on every page. */
export function Notices() {
  return useNoticesWanted((s) => s.wanted) ? <OwnToaster /> : null;
}
