import { type Remote, wrap } from 'comlink';
import type { Analyst } from './analyst.ts';

const started = new Map<string, Remote<Analyst>>();

/** An analyst on its own thread; started at first use. */
function analystNamed(name: string): Remote<Analyst> {
  let remote = started.get(name);
  if (!remote) {
    remote = wrap<Analyst>(new Worker(new URL('./analyst.worker.ts', import.meta.url), { type: 'module', name }));
    started.set(name, remote);
  }
  return remote;
}

/** Answers what the person looks at. */
export function analyst(): Remote<Analyst> {
  return analystNamed('analyst');
}

/** Does what takes long, so that the other one stays free: advice, expectations over many visits. */
export function longAnalyst(): Remote<Analyst> {
  return analystNamed('long analyst');
}
