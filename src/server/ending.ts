/** Answers that are underway get so long once the server was told to end, in ms. */
const GRACE_MS = 4000;

/** A terminal and the command that started the server may both pass on one Ctrl+C: within so long, in ms, it is one. */
const SAME_MS = 1000;

const EXIT_CODES = { SIGINT: 130, SIGTERM: 143 } as const;

interface Ending {
  /** When it was first told, in ms of the clock; null before. */
  since: number | null;
  /** What ends the answers that never end by themselves. */
  streams: Set<() => void>;
}

/** Each route is bundled by itself: what all of them share hangs on the process. */
const held = globalThis as typeof globalThis & { yokelineEnding?: Ending };

function ending(): Ending {
  held.yokelineEnding ??= { since: null, streams: new Set() };
  return held.yokelineEnding;
}

/**
 * Has the server end when it is told to, whoever is connected. What serves waits until every connection is closed, and a browser may hold one that it
 * opened to have it ready and never used: nothing closes that. So streams end at once, other answers get a few seconds, and a second signal waits for nothing.
 */
export function endOnSignals(): void {
  const state = ending();
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.on(signal, () => {
      if (state.since !== null) {
        if (Date.now() - state.since > SAME_MS) process.exit(EXIT_CODES[signal]);
        return;
      }
      state.since = Date.now();
      for (const end of [...state.streams]) end();
      setTimeout(() => process.exit(EXIT_CODES[signal]), GRACE_MS).unref();
    });
}

/** Has a stream end with the server: at once where the server is ending already. Gives what takes the stream out again. */
export function endsWithServer(end: () => void): () => void {
  const { since, streams } = ending();
  if (since !== null) {
    end();
    return () => {};
  }
  streams.add(end);
  return () => {
    streams.delete(end);
  };
}
