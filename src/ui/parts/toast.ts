'use client';

import type { ComponentType } from 'react';
import type { ExternalToast } from 'sonner';
import { create } from 'zustand';

interface Notices {
  /** What shows notices: fetched with the first of them, or ahead of that; null before. */
  Shown: ComponentType | null;
  /** What is to be told though what shows it couldn’t be fetched, by its id: where the server is gone, that is just what has to be said. */
  plain: ReadonlyMap<string | number, string>;
}

export const useNotices = create<Notices>()(() => ({ Shown: null, plain: new Map() }));

type Toast = typeof import('sonner')['toast'];

/** Fetches what shows notices, ahead of the first. */
export const loadNotices = () => Promise.all([import('sonner'), import('./toaster.tsx')]);

function tell(id: string | number, words: string | null, does: (toast: Toast) => void): void {
  const plainly = (said: string | null) =>
    useNotices.setState(({ plain }) => {
      const others = [...plain].filter(([of]) => of !== id);
      return { plain: new Map(said === null ? others : [...others, [id, said]]) };
    });
  loadNotices().then(
    ([{ toast }, { OwnToaster }]) => {
      useNotices.setState({ Shown: OwnToaster });
      plainly(null);
      does(toast);
    },
    () => plainly(words),
  );
}

let given = 0;

function told(kind: 'message' | 'error' | 'success' | 'loading') {
  return (words: string, options: ExternalToast = {}): string | number => {
    const id = options.id ?? `notice ${++given}`;
    tell(id, words, (toast) => toast[kind](words, { ...options, id }));
    return id;
  };
}

/** Tells something beside whatever the person does; gives the notice’s id, by which it can be changed and taken away. */
export const toast = Object.assign(told('message'), {
  error: told('error'),
  success: told('success'),
  loading: told('loading'),
  dismiss: (id: string | number) => tell(id, null, (t) => t.dismiss(id)),
});
