import { type Remote, wrap } from 'comlink';
import type { Analyst } from './analyst.ts';

let remote: Remote<Analyst> | null = null;

/** The analyst on its own thread; started at first use. */
export function analyst(): Remote<Analyst> {
  remote ??= wrap<Analyst>(
    new Worker(new URL('./analyst.worker.ts', import.meta.url), { type: 'module', name: 'analyst' }),
  );
  return remote;
}
