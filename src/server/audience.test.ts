import { jest } from '@jest/globals';
import fc from 'fast-check';
import { Audience } from './audience.ts';

const ALONE_MS = 100;

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

it('is deserted exactly when nobody has listened for so long, however often they come, and leave twice', () => {
  const deed = fc.oneof(
    fc.constant({ kind: 'join' } as const),
    fc.record({ kind: fc.constant('leave' as const), who: fc.nat(5) }),
    fc.record({ kind: fc.constant('wait' as const), ms: fc.integer({ min: 1, max: 150 }) }),
  );
  fc.assert(
    fc.property(fc.array(deed, { maxLength: 40 }), (deeds) => {
      let ends = 0;
      const audience = new Audience<string>(ALONE_MS, () => ends++);
      const all: { leave: () => void; heard: string[]; there: boolean }[] = [];
      // The slow oracle: who is there, since when nobody is, and whether that was told.
      let [aloneFor, expected] = [Number.NEGATIVE_INFINITY, 0];
      for (const by of deeds) {
        if (by.kind === 'join') {
          const heard: string[] = [];
          all.push({ leave: audience.join((event) => heard.push(event)), heard, there: true });
          aloneFor = Number.NEGATIVE_INFINITY;
        } else if (by.kind === 'leave') {
          const one = all[by.who];
          if (!one) continue;
          one.leave();
          if (one.there && all.every((o) => o === one || !o.there)) aloneFor = 0;
          one.there = false;
        } else {
          jest.advanceTimersByTime(by.ms);
          if (aloneFor < ALONE_MS && aloneFor + by.ms >= ALONE_MS) expected++;
          aloneFor += by.ms;
        }
        const before = all.map((o) => o.heard.length);
        audience.tell('x');
        all.forEach((o, i) => {
          expect(o.heard.length).toBe(before[i] + (o.there ? 1 : 0));
        });
        expect(ends).toBe(expected);
        expect(audience.size).toBe(all.filter((o) => o.there).length);
      }
      jest.clearAllTimers();
    }),
  );
});
