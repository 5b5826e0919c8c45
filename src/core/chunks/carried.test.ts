import fc from 'fast-check';
import { anyApp, sketch } from '../../test-support/snapshots.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { carriedWeights } from './carried.ts';

function asBuilt(snapshot: Snapshot): Uint8Array {
  return Uint8Array.from(snapshot.imports, (i) => (i.kind === 'dynamic' ? 1 : 0));
}

/** Minified bytes reachable from the starts, with some imports taken away. */
function startBytes(snapshot: Snapshot, starts: number[], without: (from: number, to: number) => boolean): number {
  const found = new Set(starts);
  for (let grew = true; grew; ) {
    grew = false;
    for (const i of snapshot.imports) {
      if (i.kind === 'dynamic' || without(i.from, i.to) || !found.has(i.from) || found.has(i.to)) continue;
      found.add(i.to);
      grew = true;
    }
  }
  return [...found].reduce((sum, m) => sum + snapshot.modules[m].bytes.minified, 0);
}

describe('carriedWeights', () => {
  it('equals what leaves when the start is worked out again without the import', () => {
    fc.assert(
      fc.property(anyApp(16), fc.boolean(), (snapshot, two) => {
        const starts = two && snapshot.modules.length > 2 ? [0, 2] : [0];
        const carried = carriedWeights(snapshot, graphIndex(snapshot), asBuilt(snapshot), starts);
        const all = startBytes(snapshot, starts, () => false);
        expect(carried.start.minified).toBe(all);
        for (const i of snapshot.imports) {
          if (i.kind === 'dynamic' || carried.ofModule(i.from) === null) continue;
          const left = startBytes(snapshot, starts, (from, to) => from === i.from && to === i.to);
          expect(carried.ofImport(i.from, i.to).minified).toBe(all - left);
        }
        for (const m of carried.modules) {
          const left = startBytes(snapshot, starts, (_, to) => to === m);
          expect(carried.ofModule(m)?.minified).toBe(all - left);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('tells nothing of modules outside the start', () => {
    const snapshot = sketch({ main: { imports: ['~far'] }, far: {} });
    const carried = carriedWeights(snapshot, graphIndex(snapshot), asBuilt(snapshot), [0]);
    expect(carried.ofModule(1)).toBeNull();
    expect(carried.ofImport(0, 1).minified).toBe(0);
  });
});
