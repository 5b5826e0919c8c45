'use client';

import { useRef, useState } from 'react';
import type { ReadingOffers } from '../../../core/errors.ts';
import type { ReadingState } from '../../../server/reading-jobs.ts';
import { api } from '../../state/api.ts';
import { follow, progressWords, troubleWords } from '../../state/reading.ts';

/** A reading that goes on, or a project that is there at once. */
export type Started = ReadingState | { id: string; project: true };
/** What was wrong, and what could be read in its place. */
export interface ReadingTrouble {
  words: string;
  offers?: ReadingOffers;
}
export type Told = (words: string, share: number) => void;

/** One reading at a time: how far it is, what was wrong, and a way to stop it. */
export function useReading(onRead: (id: string) => void) {
  const [words, setWords] = useState<string | null>(null);
  const [share, setShare] = useState(0);
  const [trouble, setTrouble] = useState<ReadingTrouble | null>(null);
  const running = useRef<string | null>(null);
  /** Stopped while there was nothing to stop at the server yet. */
  const dropped = useRef(false);
  const tell: Told = (said, part) => {
    setWords(said);
    setShare(part);
  };
  const run = async (start: (told: Told) => Promise<Started>) => {
    setTrouble(null);
    dropped.current = false;
    tell('Starting', 0);
    try {
      const started = await start(tell);
      if ('project' in started) {
        onRead(started.id);
        return;
      }
      running.current = started.id;
      if (dropped.current) await api.stopReading(started.id);
      const end = await follow(Promise.resolve(started), (state) =>
        tell(progressWords(state), state.read / Math.max(1, state.known)),
      );
      if (end.state === 'done' && end.projectId) onRead(end.projectId);
      else if (end.state === 'stopped') setTrouble({ words: 'Stopped. Nothing was kept.' });
      else setTrouble({ words: troubleWords(end) ?? '', offers: end.problem?.offers });
    } catch (error) {
      setTrouble({ words: error instanceof Error ? error.message : String(error) });
    }
    running.current = null;
    setWords(null);
  };
  const stop = () => {
    dropped.current = true;
    if (running.current) void api.stopReading(running.current);
  };
  return { words, share, trouble, run, stop };
}
