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
  import: { burst: 20, perSecond: 1 },
  key: { burst: 10, perSecond: 0.2 },
} satisfies Record<string, Rate>;

interface Bucket {
  left: number;
  at: number;
}

const held = globalThis as typeof globalThis & { yokelineRates?: Map<string, Bucket> };

/** Takes one of the calls that a kind of work has left; throws a Problem (429) when there is none. `now` in ms. */
export function takeTurn(kind: keyof typeof RATES, now = performance.now()): void {
  const { perSecond } = RATES[kind];
  const left = leftOf(kind, now);
  if (left < 1) {
    const seconds = Math.ceil((1 - left) / perSecond);
    throw new Problem('too-often', 'Too often', `Try again in ${seconds} ${seconds === 1 ? 'second' : 'seconds'}.`, {
      retryAfter: seconds,
    });
  }
  held.yokelineRates!.set(kind, { left: left - 1, at: now });
}

/** The same where the words of the refusal are the caller's: false when there is none left. */
export function mayTakeTurn(kind: keyof typeof RATES, now = performance.now()): boolean {
  const left = leftOf(kind, now);
  if (left >= 1) held.yokelineRates!.set(kind, { left: left - 1, at: now });
  return left >= 1;
}

function leftOf(kind: keyof typeof RATES, now: number): number {
  held.yokelineRates ??= new Map();
  const { burst, perSecond } = RATES[kind];
  const bucket = held.yokelineRates.get(kind) ?? { left: burst, at: now };
  return Math.min(burst, bucket.left + ((now - bucket.at) / 1000) * perSecond);
}
