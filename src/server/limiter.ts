import { Problem } from './problem.ts';

/** How often a kind of heavy work may be asked for: so many at once, and so many more per second. */
interface Rate {
  burst: number;
  perSecond: number;
}

const RATES = {
  patch: { burst: 30, perSecond: 10 },
  file: { burst: 10, perSecond: 1 },
  search: { burst: 40, perSecond: 10 },
} satisfies Record<string, Rate>;

interface Bucket {
  left: number;
  at: number;
}

const held = globalThis as typeof globalThis & { yokelineRates?: Map<string, Bucket> };

/** Takes one of the calls that a kind of work has left; throws a Problem (429) when there is none. `now` in ms. */
export function takeTurn(kind: keyof typeof RATES, now = performance.now()): void {
  held.yokelineRates ??= new Map();
  const { burst, perSecond } = RATES[kind];
  const bucket = held.yokelineRates.get(kind) ?? { left: burst, at: now };
  const left = Math.min(burst, bucket.left + ((now - bucket.at) / 1000) * perSecond);
  if (left < 1) {
    const seconds = Math.ceil((1 - left) / perSecond);
    throw new Problem('too-often', 'Too often', `Try again in ${seconds} ${seconds === 1 ? 'second' : 'seconds'}.`, {
      retryAfter: seconds,
    });
  }
  held.yokelineRates.set(kind, { left: left - 1, at: now });
}
