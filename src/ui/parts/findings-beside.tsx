'use client';

import { STATION_OF } from '../../core/advise/stations.ts';
import { chooseFinding, useFindings } from '../state/advice.ts';
import { useStations } from '../state/stations.ts';
import { time } from './format.ts';
import { seenWords } from './seen-words.ts';

/** What is worth changing at a station: the best of it, and the way to all. */
export function FindingsBeside({ station }: { station: 'inventory' | 'split' | 'visits' }) {
  const { open, old } = useFindings();
  const go = useStations((s) => s.go);
  const here = open.filter((f) => STATION_OF[f.kind] === station);
  if (here.length === 0 || old) return null;
  const [best] = here;
  return (
    <button
      type="button"
      className="mb-1.5 ml-auto flex min-w-0 items-baseline gap-2 px-4 text-soft hover:text-ink"
      onClick={() => {
        chooseFinding(best.id);
        go('hints');
      }}
    >
      <span className="truncate">{best.what}</span>
      <span className="shrink-0 text-better">
        {best.seen ? seenWords(best.effect.seen) : `▾ ${time(-best.effect.cost)}`}
      </span>
      <span className="shrink-0 underline">{here.length === 1 ? 'see it' : `all ${here.length} findings here`}</span>
    </button>
  );
}
