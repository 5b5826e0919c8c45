import fc from 'fast-check';
import { anyApp, route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { importKey } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { membersOf } from './bits.ts';
import { planned } from './planned.ts';
import type { ChunkGraph } from './types.ts';

function plan(...decisions: Plan['decisions']): Plan {
  return { name: 'test', description: '', decisions };
}

/** Reach, present and need straight from their definitions, with sets of paths. */
function oracle(snapshot: Snapshot): Map<string, { reach: Set<string>; present: Set<string>; need: Set<string> }> {
  const path = (m: number) => snapshot.modules[m].path;
  const reach = (starts: string[]) => {
    const found = new Set(starts);
    for (let grew = true; grew; ) {
      grew = false;
      for (const i of snapshot.imports) {
        if (i.kind === 'static' && found.has(path(i.from)) && !found.has(path(i.to))) {
          found.add(path(i.to));
          grew = true;
        }
      }
    }
    return found;
  };
  const roots = new Map([['entry', reach(snapshot.entries[0].modules)]]);
  const askers = new Map<string, Set<string>>();
  const ask = (root: string, target: string) => {
    if (!roots.has(target)) roots.set(target, reach([target]));
    askers.set(target, (askers.get(target) ?? new Set()).add(root));
  };
  const followCode = () => {
    for (let known = -1; known !== roots.size; ) {
      known = roots.size;
      for (const [root, has] of [...roots]) {
        for (const i of snapshot.imports) if (i.kind === 'dynamic' && has.has(path(i.from))) ask(root, path(i.to));
      }
    }
  };
  followCode();
  const reached = new Set([...roots.values()].flatMap((has) => [...has]));
  for (const r of snapshot.routes) for (const m of [...r.layouts, r.page]) if (!reached.has(m)) ask('entry', m);
  followCode();
  const all = new Set(snapshot.modules.map((m) => m.path));
  const present = new Map([...roots.keys()].map((r) => [r, r === 'entry' ? new Set<string>() : all]));
  const pages = new Set(snapshot.routes.map((r) => r.page));
  for (let changed = true; changed; ) {
    changed = false;
    for (const r of roots.keys()) {
      if (r === 'entry') continue;
      const from = [...(askers.get(r) ?? [])].map((p) => new Set([...present.get(p)!, ...roots.get(p)!]));
      const now = new Set([...all].filter((m) => from.every((s) => s.has(m))));
      if (pages.has(r)) {
        const led = new Set([r]);
        for (let known = -1; known !== led.size; ) {
          known = led.size;
          for (const [target, by] of askers) if ([...by].some((p) => led.has(p))) led.add(target);
        }
        const layouts = new Set(snapshot.routes.flatMap((x) => x.layouts));
        const alone = new Set([...layouts].filter((l) => roots.has(l) && !pages.has(l) && !led.has(l)));
        const chains = snapshot.routes
          .filter((x) => x.page === r || x.layouts.includes(r))
          .map((x) => reach(x.layouts.filter((l) => l !== r && alone.has(l))));
        for (const m of all) if (chains.every((c) => c.has(m))) now.add(m);
      }
      if (now.size !== present.get(r)!.size) {
        present.set(r, now);
        changed = true;
      }
    }
  }
  return new Map(
    [...roots].map(([r, has]) => {
      const had = present.get(r)!;
      return [r, { reach: has, present: had, need: new Set([...has].filter((m) => !had.has(m))) }];
    }),
  );
}

/** A chunk graph in words that don't depend on numbering. */
function inWords(snapshot: Snapshot, graph: ChunkGraph): unknown {
  const paths = (list: Iterable<number>) => [...list].map((m) => snapshot.modules[m].path);
  const word = (c: number) =>
    `${graph.chunks[c].id} ${graph.chunks[c].name} ${paths(graph.chunks[c].modules)} ${JSON.stringify(graph.chunks[c].bytes)}`;
  return {
    chunks: graph.chunks.map((_, c) => word(c)).sort(),
    roots: graph.roots.map((r) => [
      r.id,
      r.kind,
      r.routes,
      paths(membersOf(r.present)).sort(),
      paths(r.need).sort(),
      r.group.map(word).sort(),
    ]),
    unreached: paths(graph.unreached),
  };
}

describe('formChunks', () => {
  it('gives each root what the definitions say', () => {
    fc.assert(
      fc.property(anyApp(), (snapshot) => {
        const graph = planned(snapshot, BASELINE).graph;
        const expected = oracle(snapshot);
        const said = new Map(
          graph.roots.map((r) => {
            const paths = (list: Iterable<number>) => new Set([...list].map((m) => snapshot.modules[m].path));
            const key = r.kind === 'entry' ? 'entry' : snapshot.modules[r.target[0]].path;
            return [
              key,
              { reach: paths(membersOf(r.reach)), present: paths(membersOf(r.present)), need: paths(r.need) },
            ];
          }),
        );
        expect(said).toEqual(expected);
      }),
      { numRuns: 300 },
    );
  });

  it('holds exactly the needed modules in each load group, and no module twice in a realm', () => {
    fc.assert(
      fc.property(anyApp(), (snapshot) => {
        const graph = planned(snapshot, BASELINE).graph;
        for (const root of graph.roots) {
          const union = root.group.flatMap((c) => graph.chunks[c].modules).sort((a, b) => a - b);
          expect(union).toEqual([...root.need].sort((a, b) => a - b));
        }
        const all = graph.chunks.flatMap((c) => c.modules);
        expect(new Set(all).size).toBe(all.length);
      }),
    );
  });

  it('is restored by joining what was detached', () => {
    fc.assert(
      fc.property(anyApp(), fc.nat(), (snapshot, pick) => {
        fc.pre(snapshot.imports.length > 0);
        const key = importKey(snapshot, snapshot.imports[pick % snapshot.imports.length]);
        const wasStatic = snapshot.imports[pick % snapshot.imports.length].kind === 'static';
        const [there, back] = wasStatic ? (['detach', 'join'] as const) : (['join', 'detach'] as const);
        planned(snapshot, plan({ kind: there, import: key })).graph;
        const again = planned(snapshot, plan({ kind: there, import: key }, { kind: back, import: key })).graph;
        expect(inWords(snapshot, again)).toEqual(inWords(snapshot, planned(snapshot, BASELINE).graph));
      }),
    );
  });

  it('does not depend on the order of the input', () => {
    fc.assert(
      fc.property(anyApp(), fc.integer(), (snapshot, seed) => {
        const count = snapshot.modules.length;
        const places = snapshot.modules
          .map((_, i) => i)
          .sort((a, b) => Math.sin(a * 7 + seed) - Math.sin(b * 7 + seed));
        const newAt = new Map(places.map((old, now) => [old, now]));
        const shuffled: Snapshot = {
          ...snapshot,
          modules: places.map((old) => snapshot.modules[old]),
          imports: snapshot.imports.map((i) => ({ ...i, from: newAt.get(i.from)!, to: newAt.get(i.to)! })).reverse(),
          routes: [...snapshot.routes].reverse(),
        };
        expect(shuffled.modules).toHaveLength(count);
        expect(inWords(shuffled, planned(shuffled, BASELINE).graph)).toEqual(
          inWords(snapshot, planned(snapshot, BASELINE).graph),
        );
      }),
    );
  });

  it('puts what two pages share in a chunk of its own, named by what it holds', () => {
    const snapshot = sketch(
      {
        main: { imports: ['~a', '~b'] },
        a: { imports: ['lib'] },
        b: { imports: ['lib', 'onlyB'] },
        lib: { package: '@made/up', bytes: 9000 },
        onlyB: {},
      },
      { routes: [route('/a', 'a'), route('/b', 'b')] },
    );
    const graph = planned(snapshot, BASELINE).graph;
    expect(graph.chunks.map((c) => c.name)).toEqual(['@made/up', 'entry', 'a', 'b']);
    expect(graph.roots.map((r) => r.kind)).toEqual(['entry', 'page', 'page']);
    const b = graph.roots[2];
    expect(b.group.map((c) => graph.chunks[c].name)).toEqual(['@made/up', 'b']);
  });

  it('evaluates dependencies first, and cycles once', () => {
    const snapshot = sketch({
      main: { imports: ['a', 'b'] },
      a: { imports: ['c'] },
      b: { imports: ['a'] },
      c: { imports: ['a'] },
    });
    const [chunk] = planned(snapshot, BASELINE).graph.chunks;
    expect(chunk.modules.map((m) => snapshot.modules[m].path)).toEqual(['c', 'a', 'b', 'main']);
  });

  it('keeps styles apart from scripts, in import order', () => {
    const snapshot = sketch({
      main: { imports: ['z.css', 'a.css'] },
      'a.css': { kind: 'style' },
      'z.css': { kind: 'style' },
    });
    const graph = planned(snapshot, BASELINE).graph;
    expect(graph.chunks.map((c) => [c.name, c.kind])).toEqual([
      ['entry styles', 'style'],
      ['entry', 'script'],
    ]);
    expect(graph.chunks[0].modules.map((m) => snapshot.modules[m].path)).toEqual(['z.css', 'a.css']);
  });

  it('lists deferred targets that nothing live reaches', () => {
    const snapshot = sketch({ main: {}, orphan: { imports: ['~lost'] }, lost: {} });
    const graph = planned(snapshot, BASELINE).graph;
    expect(graph.unreached.map((m) => snapshot.modules[m].path)).toEqual(['lost']);
    expect(graph.roots).toHaveLength(1);
  });

  it('gives after one decision what forming everything again gives', () => {
    fc.assert(
      fc.property(anyApp(), fc.array(fc.nat(), { maxLength: 5 }), (snapshot, picks) => {
        planned(snapshot, BASELINE).graph;
        const decisions = picks.flatMap((n): Plan['decisions'] => {
          const item = snapshot.imports[n % Math.max(1, snapshot.imports.length)];
          return item ? [{ kind: item.kind === 'static' ? 'detach' : 'join', import: importKey(snapshot, item) }] : [];
        });
        const warm = planned(snapshot, plan(...decisions)).graph;
        const again = structuredClone(snapshot);
        expect(inWords(again, planned(again, plan(...decisions)).graph)).toEqual(inWords(snapshot, warm));
      }),
    );
  });

  it('starts every realm with nothing present', () => {
    const entries = [
      { realm: 'site', kind: 'document' as const, document: 'index.html', modules: ['main'] },
      { realm: 'worker w', kind: 'worker' as const, document: null, modules: ['w'] },
    ];
    const snapshot = sketch({ main: { imports: ['shared'] }, w: { imports: ['shared'] }, shared: {} }, { entries });
    const graph = planned(snapshot, BASELINE).graph;
    expect(graph.roots.map((r) => [r.kind, membersOf(r.present).length, r.need.length])).toEqual([
      ['entry', 0, 2],
      ['worker', 0, 2],
    ]);
  });
});

describe('names of chunks', () => {
  it('are those that the code gives where it imports, else those of the modules', () => {
    const app = sketch({ main: { imports: ['~pages/tide', '~pages/map'] }, 'pages/tide': {}, 'pages/map': {} });
    const imports = app.imports.map((i) => (i.specifier === 'pages/tide' ? { ...i, named: 'water' } : i));
    const { graph } = planned({ ...app, imports }, BASELINE);
    expect(graph.chunks.map((c) => c.name).sort()).toEqual(['entry', 'map', 'water']);
  });
});
