'use client';

import { type ComponentType, type ReactNode, useEffect, useState } from 'react';
import { toast } from './toast.ts';

/** After so long code that couldn’t be fetched is asked for again, in ms. */
const AGAIN_MS = 3000;

/** One notice for all that can’t be fetched: what is missing is the server, whatever is asked of it. */
const TROUBLE = { id: 'code can’t be fetched' };
const WORDS = 'What shows this can’t be fetched: the server doesn’t answer. It is asked again until it does.';

/**
 * A component whose code is fetched with the first look at it. Until it is there `waiting` stands in its place; where it can’t be fetched, that is told and
 * tried again, and the rest of the page stays as it is. It isn’t drawn on the server.
 */
export function later<P extends object>(
  load: () => Promise<ComponentType<P>>,
  waiting: (props: P) => ReactNode = () => null,
): ComponentType<P> {
  let known: ComponentType<P> | null = null;
  // biome-ignore lint/correctness/noComponentHookFactories: called once for each component, where modules begin
  return function Later(props: P) {
    const [View, setView] = useState<ComponentType<P> | null>(() => known);
    useEffect(() => {
      if (View) return;
      let timer: ReturnType<typeof setTimeout> | undefined;
      let current = true;
      let failed = false;
      const attempt = () => {
        load().then(
          (found) => {
            known = found;
            if (failed) toast.dismiss(TROUBLE.id);
            if (current) setView(() => found);
          },
          () => {
            if (!current) return;
            failed = true;
            toast.error(WORDS, TROUBLE);
            timer = setTimeout(attempt, AGAIN_MS);
          },
        );
      };
      attempt();
      return () => {
        current = false;
        clearTimeout(timer);
      };
    }, [View]);
    return View ? <View {...props} /> : waiting(props);
  };
}
