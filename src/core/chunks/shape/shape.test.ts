import fc from 'fast-check';
import { anyApp, part, route, sketch } from '../../../test-support/snapshots.ts';
import { effectivePlan } from '../../plan/effective.ts';
import { BASELINE, type Plan, type Shape } from '../../plan/types.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import { planned } from '../planned.ts';
import type { ChunkGraph } from '../types.ts';

const shaped = (...decisions: Shape[]): Plan => ({ ...BASELINE, decisions });

const anyShape: fc.Arbitrary<Shape> = fc.oneof(
  fc.record({ kind: fc.constant('floor' as const), bytes: fc.integer({ min: 0, max: 20_000 }) }),
  fc.record({ kind: fc.constant('ceiling' as const), requests: fc.integer({ min: 1, max: 5 }) }),
  fc.record({ kind: fc.constant('grain' as const) }),
  fc.record({
    kind: fc.constant('gather' as const),
    name: fc.constantFrom('one', 'two'),
    match: fc.record({ path: fc.constantFrom('m0*', 'm1*', '**', '*5') }),
  }),
  fc.record({ kind: fc.constant('apart' as const), match: fc.record({ path: fc.constantFrom('m02', 'm1*', '*3') }) }),
  fc.record({
    kind: fc.constant('together' as const),
    modules: fc.uniqueArray(fc.constantFrom('m00', 'm01', 'm04', 'm07'), { minLength: 1 }),
  }),
);
const anyShaping = fc.array(anyShape, { maxLength: 4 });

const names = (snapshot: Snapshot, graph: ChunkGraph) =>
  graph.chunks.map((c) => [c.name, c.modules.map((m) => snapshot.modules[m].path).sort()]);

describe('shaping', () => {
  it('never loses a module, and puts none into two chunks of a realm', () => {
    fc.assert(
      fc.property(anyApp(), anyShaping, (snapshot, shapes) => {
        const graph = planned(snapshot, shaped(...shapes)).graph;
        const seen = new Set<number>();
        for (const chunk of graph.chunks) {
          for (const m of chunk.modules) {
            expect(seen.has(m)).toBe(false);
            seen.add(m);
          }
        }
        for (const root of graph.roots) {
          const brings = new Set(root.group.flatMap((c) => graph.chunks[c].modules));
          for (const m of root.need) expect(brings.has(m)).toBe(true);
        }
      }),
    );
  });

  it('loses nothing when small shared chunks are copied, and shares none of them any more', () => {
    fc.assert(
      fc.property(anyApp(), fc.integer({ min: 1, max: 9000 }), (snapshot, below) => {
        const graph = planned(snapshot, shaped({ kind: 'copy', below })).graph;
        for (const root of graph.roots) {
          const brings = new Set(root.group.flatMap((c) => graph.chunks[c].modules));
          for (const m of root.need) expect(brings.has(m)).toBe(true);
        }
        for (const chunk of graph.chunks) {
          if (chunk.kind === 'style' || chunk.roots.length < 2) continue;
          expect(chunk.modules.reduce((sum, m) => sum + snapshot.modules[m].bytes.minified, 0)).toBeGreaterThanOrEqual(
            below,
          );
        }
      }),
    );
  });

  it('gives the same whatever the order of the input', () => {
    fc.assert(
      fc.property(anyApp(), anyShaping, fc.infiniteStream(fc.nat()), (snapshot, shapes, dice) => {
        const places = snapshot.modules.map((_, i) => i);
        for (let i = places.length - 1; i > 0; i--) {
          const j = dice.next().value % (i + 1);
          [places[i], places[j]] = [places[j], places[i]];
        }
        const at = new Map(places.map((old, now) => [old, now]));
        const mixed: Snapshot = {
          ...snapshot,
          modules: places.map((old) => snapshot.modules[old]),
          imports: [...snapshot.imports].reverse().map((i) => ({ ...i, from: at.get(i.from)!, to: at.get(i.to)! })),
        };
        const plan = shaped(...shapes);
        expect(names(mixed, planned(mixed, plan).graph)).toEqual(names(snapshot, planned(snapshot, plan).graph));
      }),
    );
  });

  it('leaves no chunk under the floor that could be merged, and no moment over the ceiling', () => {
    fc.assert(
      fc.property(
        anyApp(),
        fc.integer({ min: 1, max: 12_000 }),
        fc.integer({ min: 1, max: 4 }),
        (snapshot, bytes, requests) => {
          const high = planned(snapshot, shaped({ kind: 'floor', bytes })).graph;
          for (const kind of ['script', 'style'] as const) {
            const own = high.chunks.filter((c) => c.kind === kind);
            const small = own.filter((c) => c.bytes.minified - c.overhead.minified < bytes);
            expect(small.length === 0 || own.length === 1).toBe(true);
          }
          const low = planned(snapshot, shaped({ kind: 'ceiling', requests })).graph;
          for (const root of low.roots) {
            const kinds = new Set(root.group.map((c) => low.chunks[c].kind)).size;
            expect(root.group.length).toBeLessThanOrEqual(Math.max(requests, kinds));
          }
        },
      ),
    );
  });
});

describe('rules for files', () => {
  const app = sketch(
    {
      main: { bytes: 3000, imports: ['~a', '~b', '~rare'] },
      a: { bytes: 4000, imports: ['shared', 'lib1'] },
      b: { bytes: 5000, imports: ['shared', 'lib2'] },
      rare: { bytes: 600, imports: ['lib1'] },
      shared: { bytes: 500 },
      lib1: { bytes: 9000, package: '@made/up' },
      lib2: { bytes: 8000, package: '@made/up' },
    },
    {
      routes: [route('/a', 'a', { parts: [part('rare', 'rare', { place: 'action', share: 0.01 })] }), route('/b', 'b')],
    },
  );
  const cut = (...shapes: Shape[]) => names(app, planned(app, shaped(...shapes)).graph);
  const holding = (graph: unknown[][], module: string) =>
    graph.filter(([, modules]) => (modules as string[]).includes(module)).map(([name]) => name);

  it('gather a package under a name, which whoever needs one of it gets whole', () => {
    const made = cut({ kind: 'gather', name: 'the library', match: { package: '@made/up' } });
    expect(made).toContainEqual(['the library', ['lib1', 'lib2']]);
  });

  it('say when a pattern matches nothing, and do nothing then', () => {
    const plan = shaped(
      { kind: 'gather', name: 'x', match: { path: 'src/**' } },
      { kind: 'together', modules: ['a', 'lost'] },
    );
    expect(effectivePlan(app, plan).stale.map((s) => s.reason)).toEqual([
      'no module matches src/**',
      'no module lost in this snapshot',
    ]);
  });

  it('merge a small chunk where it costs least, by how often roots are asked for', () => {
    const made = cut({ kind: 'floor', bytes: 700 });
    const home = holding(made, 'rare');
    expect(home).toHaveLength(1);
    const [, modules] = made.find(([name]) => name === home[0])!;
    expect((modules as string[]).length).toBeGreaterThan(1);
    // Not with the entry: every visit would pay for it.
    expect(modules).not.toContain('main');
  });

  it('copy what is small and shared, and only that', () => {
    const made = cut({ kind: 'copy', below: 600 });
    expect(holding(made, 'shared')).toHaveLength(2);
    expect(holding(made, 'lib1')).toHaveLength(1);
  });

  it('keep apart, keep together, and one file per module', () => {
    expect(cut({ kind: 'apart', match: { path: 'shared' } })).toContainEqual([expect.any(String), ['shared']]);
    expect(cut({ kind: 'together', modules: ['a', 'b'] })).toContainEqual([expect.any(String), ['a', 'b']]);
    expect(cut({ kind: 'grain' })).toHaveLength(app.modules.length);
    expect(cut({ kind: 'grain' }, { kind: 'floor', bytes: 1_000_000 })).toHaveLength(1);
  });

  it('name a chunk by hand, as long as the same roots need it', () => {
    const [chunk] = planned(app, BASELINE).graph.chunks;
    const named = shaped({ kind: 'chunk name', chunk: chunk.id, name: 'my own' });
    expect(planned(app, named).graph.chunks[0]).toMatchObject({ id: chunk.id, name: 'my own' });
  });

  it('reach detaching and joining: all imports of a module, and a package from outside', () => {
    const flat = sketch({
      main: { imports: ['a', 'b'] },
      a: { imports: ['lib', 'deep'] },
      b: { imports: ['lib'] },
      lib: { package: 'kit', imports: ['inner'] },
      inner: { package: 'kit' },
      deep: {},
    });
    const deferred = (choice: { module: string } | { package: string }) => {
      const { deferred } = effectivePlan(flat, { ...BASELINE, decisions: [{ kind: 'detach', ...choice }] });
      return flat.imports
        .filter((_, i) => deferred[i])
        .map((i) => `${flat.modules[i.from].path}>${flat.modules[i.to].path}`);
    };
    expect(deferred({ module: 'lib' })).toEqual(['a>lib', 'b>lib']);
    expect(deferred({ package: 'kit' })).toEqual(['a>lib', 'b>lib']);
    const nothing = { ...BASELINE, decisions: [{ kind: 'detach' as const, package: 'none' }] };
    expect(effectivePlan(flat, nothing).stale[0].reason).toContain('nothing imports the package none');
  });
});
