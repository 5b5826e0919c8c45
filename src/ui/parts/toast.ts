'use client';

import type { ExternalToast } from 'sonner';
import { create } from 'zustand';

/** Whether there is anything to be told yet: what shows notices is fetched with the first of them. */
export const useNoticesWanted = create<{ wanted: boolean }>()(() => ({ wanted: false }));

type Toast = typeof import('sonner')['toast'];

function tell(does: (toast: Toast) => void): void {
  useNoticesWanted.setState({ wanted: true });
  import('sonner').then(
    (m) => does(m.toast),
    () => console.error('A notice couldn’t be shown: what shows it couldn’t be fetched.'),
  );
}

let given = 0;

function told(kind: 'message' | 'error' | 'success' | 'loading') {
  return (words: string, options: ExternalToast = {}): string | number => {
    const id = options.id ?? `notice ${++given}`;
    tell((toast) => toast[kind](words, { ...options, id }));
    return id;
  };
}

/** Tells something beside whatever the person does; gives the notice’s id, by which it can be changed and taken away. */
export const toast = Object.assign(told('message'), {
  error: told('error'),
  success: told('success'),
  loading: told('loading'),
  dismiss: (id: string | number) => tell((t) => t.dismiss(id)),
});
