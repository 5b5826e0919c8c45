'use client';

import type { ComponentType } from 'react';
import type { ExternalToast } from 'sonner';
import { create } from 'zustand';

interface Notices {
  /** What shows notices: fetched with the first of them, or ahead of that; null before. */
  Shown: ComponentType | null;
  /** What is to be told though it couldn’t be fetched: where the server is gone, that is just what has to be said. */
  plain: readonly string[];
}

export const useNotices = create<Notices>()(() => ({ Shown: null, plain: [] }));

type Toast = typeof import('sonner')['toast'];

/** Fetches what shows notices, ahead of the first. */
export const loadNotices = () => Promise.all([import('sonner'), import('./toaster.tsx')]);

function tell(words: string | null, does: (toast: Toast) => void): void {
  loadNotices().then(
    ([{ toast }, { OwnToaster }]) => {
      useNotices.setState({ Shown: OwnToaster });
      does(toast);
    },
    () => {
      if (words !== null) useNotices.setState(({ plain }) => ({ plain: [...plain.filter((p) => p !== words), words] }));
    },
  );
}

let given = 0;

function told(kind: 'message' | 'error' | 'success' | 'loading') {
  return (words: string, options: ExternalToast = {}): string | number => {
    const id = options.id ?? `notice ${++given}`;
    tell(words, (toast) => toast[kind](words, { ...options, id }));
    return id;
  };
}

/** Tells something beside whatever the person does; gives the notice’s id, by which it can be changed and taken away. */
export const toast = Object.assign(told('message'), {
  error: told('error'),
  success: told('success'),
  loading: told('loading'),
  dismiss: (id: string | number) => tell(null, (t) => t.dismiss(id)),
});
