'use client';

import type { CSSProperties } from 'react';
import { Toaster } from 'sonner';

/** Notices take the colours of whatever theme is chosen, as everything does. */
const LOOK = {
  '--normal-bg': 'var(--sheet)',
  '--normal-border': 'var(--ink)',
  '--normal-text': 'var(--ink)',
  '--normal-bg-hover': 'var(--band)',
  '--normal-border-hover': 'var(--ink)',
  fontFamily: 'inherit',
} as CSSProperties;

/** Above the live strip: neither what is chosen at the top nor any figure is ever covered, as some notices stay. */
const PLACE = { bottom: 130, right: 16 };

/** What shows notices. */
export function OwnToaster() {
  return (
    <Toaster
      position="bottom-right"
      offset={PLACE}
      style={LOOK}
      toastOptions={{ style: { fontFamily: 'inherit', borderRadius: 4 }, closeButtonAriaLabel: 'Close the notice' }}
    />
  );
}
