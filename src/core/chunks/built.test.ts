import fc from 'fast-check';
import { anyApp, sketch } from '../../test-support/snapshots.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { importKey } from '../snapshot/graph-index.ts';
import type { BuiltFile } from '../snapshot/output-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { planned } from './planned.ts';

/** A random app as some build may have cut it: every module in one file or two, the document asks for the first. */
const anyOutput = anyApp(16).chain((app) =>
  fc
    .record({
      homes: fc.array(fc.uniqueArray(fc.integer({ min: 0, max: 3 }), { minLength: 1, maxLength: 2 }), {
        minLength: app.modules.length,
        maxLength: app.modules.length,
      }),
      links: fc.array(fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 0, max: 3 }), fc.boolean())),
      toggles: fc.array(fc.nat(), { maxLength: 6 }),
    })
    .map(({ homes, links, toggles }) => {
      const modules = app.modules.map((m) => ({ ...m, kind: 'script' as const }));
      const files = [0, 1, 2, 3].map((f): BuiltFile => {
        const own = modules.flatMap((m, i) => (homes[i].includes(f) ? [{ module: i, bytes: m.bytes.minified }] : []));
        const minified = own.reduce((sum, m) => sum + m.bytes, 0) + 40;
        return {
          path: `f${f}.js`,
          kind: 'script',
          bytes: { minified, gzip: Math.round(minified / 3), brotli: Math.round(minified / 4) },
          inside: 'sources',
          modules: own,
          contents: [],
          imports: links
            .filter(([from]) => from === f)
            .map(([, to, deferred]) => ({ to, kind: deferred ? ('dynamic' as const) : ('static' as const), line: 1 })),
        };
      });
      const tags = [{ file: 0, placement: 'module' as const, offset: 10 }];
      const snapshot: Snapshot = { ...app, modules, output: { files, starts: [{ realm: 'site', tags }] } };
      const decisions = toggles.flatMap((n): Decision[] => {
        const item = snapshot.imports[n % Math.max(1, snapshot.imports.length)];
        if (!item) return [];
        return [{ kind: item.kind === 'static' ? 'detach' : 'join', import: importKey(snapshot, item) }];
      });
      return { snapshot, decisions };
    }),
);

describe('the chunks of a production output', () => {
  it('bring every root what it needs, as built and under any plan', () => {
    fc.assert(
      fc.property(anyOutput, ({ snapshot, decisions }) => {
        for (const plan of [BASELINE, { ...BASELINE, decisions }]) {
          const graph = planned(snapshot, plan).graph;
          const started = graph.roots[0].group;
          for (const root of graph.roots) {
            const there = new Set([...root.group, ...started].flatMap((c) => graph.chunks[c].modules));
            for (const m of root.need) expect(there.has(m)).toBe(true);
          }
        }
      }),
    );
  });

  it('are the real files as long as nothing is decided, and again when all is taken back', () => {
    fc.assert(
      fc.property(anyOutput, ({ snapshot, decisions }) => {
        const built = planned(snapshot, BASELINE).graph;
        for (const chunk of built.chunks) {
          const file = snapshot.output!.files.find((f) => f.path === chunk.file)!;
          expect(chunk.modules).toEqual(file.modules.map((m) => m.module));
          expect(chunk.bytes).toMatchObject(file.bytes);
        }
        const back = decisions.map((d) => ({ ...d, kind: d.kind === 'detach' ? 'join' : 'detach' }) as Decision);
        expect(planned(snapshot, { ...BASELINE, decisions: [...decisions, ...back] }).graph).toEqual(built);
      }),
    );
  });

  it('lose from a file exactly the bytes of the modules that leave it', () => {
    const app = sketch({ main: { imports: ['big', 'small'] }, big: { bytes: 5000 }, small: { bytes: 200 } });
    const bytes = { minified: 6300, gzip: 2100, brotli: 2000 };
    const file = {
      path: 'all.js',
      kind: 'script' as const,
      bytes,
      inside: 'sources' as const,
      modules: app.modules.map((m, module) => ({ module, bytes: m.bytes.minified })),
      contents: [],
      imports: [],
    };
    const starts = [{ realm: 'site', tags: [{ file: 0, placement: 'defer' as const, offset: 0 }] }];
    const snapshot = { ...app, output: { files: [file], starts } };
    const { chunks } = planned(snapshot, { ...BASELINE, decisions: [{ kind: 'detach', import: 'main::big' }] }).graph;
    expect(chunks.map((c) => [c.file ?? null, c.modules])).toEqual([
      ['all.js', [0, 2]],
      [null, [1]],
    ]);
    expect(chunks[0].bytes).toMatchObject({ minified: 1300, gzip: Math.round((2100 * 1300) / 6300) });
  });
});
