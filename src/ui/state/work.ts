'use client';

import { useEffect, useState } from 'react';

/**
 * Runs work for what is looked at: begun again when one of `of` changes, and `wanted` says from then on (and once nobody
 * looks any more) that its results are out of date. What goes wrong while it is wanted is given to `failed`.
 */
export function useWork(
  work: (wanted: () => boolean) => Promise<void>,
  failed: (error: Error) => void,
  of: readonly unknown[],
): void {
  useEffect(() => {
    let current = true;
    work(() => current).catch((error: Error) => current && failed(error));
    return () => {
      current = false;
    };
    // biome-ignore lint/correctness/useExhaustiveDependencies: whoever calls says what the work is about
  }, of);
}

/** The answer to one question, asked again when one of `of` changes; nothing while it is worked out. */
export function useAnswer<T>(
  ask: () => Promise<T>,
  of: readonly unknown[],
): { found: T | undefined; error: string | null } {
  const [state, setState] = useState<{ found: T | undefined; error: string | null }>(NOTHING);
  useWork(
    async (wanted) => {
      setState(NOTHING);
      const found = await ask();
      if (wanted()) setState({ found, error: null });
    },
    (error) => setState({ found: undefined, error: error.message }),
    of,
  );
  return state;
}

const NOTHING = { found: undefined, error: null };
