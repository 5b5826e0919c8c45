import fc from 'fast-check';
import { anyApp } from '../../test-support/snapshots.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import { broughtOnlyBy } from './brought-by.ts';

describe('what only imports that can wait bring', () => {
  it('is what isn’t reached without them, in pieces apart, each with the imports from what stays', () => {
    fc.assert(
      fc.property(anyApp(12), fc.array(fc.boolean(), { minLength: 40, maxLength: 40 }), (app, can) => {
        const follows = (i: number) => app.imports[i].kind === 'static';
        const waits = (i: number) => can[i % can.length];
        const all = new Set(app.modules.map((_, m) => m).filter((m) => m !== 3));
        const reach = (goes: (i: number) => boolean) => {
          const found = new Set([0]);
          for (const m of found)
            app.imports.forEach((item, i) => {
              if (item.from === m && follows(i) && goes(i) && all.has(item.to)) found.add(item.to);
            });
          return found;
        };
        const stays = reach((i) => !waits(i));
        const whole = reach(() => true);
        const pieces = broughtOnlyBy(app, graphIndex(app), { roots: [0, 3], modules: all }, follows, waits);
        const modules = pieces.flatMap((p) => p.modules);
        expect(new Set(modules).size).toBe(modules.length);
        expect(new Set(modules)).toEqual(new Set([...whole].filter((m) => !stays.has(m))));
        for (const piece of pieces) {
          expect(piece.weight).toBe(piece.modules.reduce((sum, m) => sum + app.modules[m].bytes.minified, 0));
          const own = new Set(piece.modules);
          const bring = app.imports.flatMap((item, i) =>
            follows(i) && stays.has(item.from) && own.has(item.to) ? [i] : [],
          );
          expect([...piece.imports].sort((a, b) => a - b)).toEqual(bring);
          // Nothing of a piece leads to another: they share no module.
          for (const item of app.imports)
            if (item.kind === 'static' && own.has(item.from) && all.has(item.to) && !stays.has(item.to))
              expect(own.has(item.to)).toBe(true);
        }
      }),
      { numRuns: 300 },
    );
  });
});
