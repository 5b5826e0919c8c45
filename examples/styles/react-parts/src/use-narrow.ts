import { useSyncExternalStore } from 'react';
const q = '(max-width: 720px)';
export function useNarrow() { return useSyncExternalStore((f) => { const m = window.matchMedia(q); m.addEventListener('change', f); return () => m.removeEventListener('change', f); }, () => window.matchMedia(q).matches); }
