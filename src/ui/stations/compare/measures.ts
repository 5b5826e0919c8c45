import { type Measure, unitOf } from '../../../core/compare/measures.ts';
import { count, size, time } from '../../parts/format.ts';
import { TERMS } from '../../parts/terms.ts';

const WRITE = { ms: time, bytes: size, count };

/** How a figure is written. */
export function writerOf(measure: Measure): (value: number) => string {
  return WRITE[unitOf(measure)];
}

/** What a measure is called in tables, and what it means. */
export const WORDS: Record<Measure, { name: string; about: string }> = {
  'first content': { name: 'first content', about: 'when the first content is on the screen' },
  'first screen': { name: 'first screen complete', about: 'when every part of the first screen shows' },
  interactive: { name: 'interactive', about: 'when all interactive parts of the first screen answer' },
  quiet: {
    name: 'time to interactive',
    about:
      'the last long task before five quiet seconds, or the end of the document’s scripts; it knows tasks, not parts',
  },
  'start bytes': { name: 'start', about: TERMS.start },
  'other scripts': { name: 'other scripts', about: TERMS['other scripts'] },
  'also fetched': { name: 'also fetched', about: TERMS['also fetched'] },
  requests: { name: 'requests', about: 'sent until interactive, or for the action' },
  hops: { name: 'hops', about: 'longest chain of discoveries among them' },
  blocked: { name: 'blocked', about: 'what exceeds 50 ms in tasks between first content and interactive' },
  'unused bytes': { name: 'not used at start', about: TERMS['not used at start'] },
  'wasted bytes': { name: 'waste', about: 'fetched and never used' },
  wait: { name: 'wait', about: 'from the act until it shows, acted on at once after the landing has come to rest' },
  'until complete': {
    name: 'until complete',
    about: 'from the act until all of it is there, with its images and data',
  },
  bytes: { name: 'fetched', about: 'bytes that the action fetches' },
};

/** A change in words for tables that are copied: sign, amount, better or worse. */
export function changeWords(measure: Measure, change: number): string {
  const write = writerOf(measure);
  if (!Number.isFinite(change) || write(Math.abs(change)) === write(0)) return 'same';
  return `${change < 0 ? '−' : '+'}${write(Math.abs(change))}`;
}
