import fc from 'fast-check';
import { anyApp, part, route, sketch } from '../../../test-support/snapshots.ts';
import { BASELINE } from '../../plan/types.ts';
import { importKey } from '../../snapshot/graph-index.ts';
import type { Route } from '../../snapshot/route-types.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import { startModules } from '../start-modules.ts';
import { cheapestCut } from './cheapest-cut.ts';

/** Modules that a start reaches without the imports of a set. */
function reached(snapshot: Snapshot, starts: number[], without: ReadonlySet<string>): Set<number> {
  const found = new Set(starts);
  for (const m of found) {
    for (const i of snapshot.imports)
      if (i.from === m && i.kind === 'static' && !without.has(importKey(snapshot, i))) found.add(i.to);
  }
  return found;
}

/** The size of the smallest cut by trying sets of pairs of modules, the smallest sets first; null when none helps. */
function slowCut(snapshot: Snapshot, r: Route, target: number): number | null {
  const starts = startModules(snapshot, r);
  const forbidden = new Set(starts);
  for (const p of r.parts)
    if (p.place === 'first screen') forbidden.add(snapshot.modules.findIndex((m) => m.path === p.module));
  if (forbidden.has(target)) return null;
  const inStart = reached(snapshot, starts, new Set());
  const pairs = new Map<string, string[]>();
  for (const i of snapshot.imports) {
    if (i.kind !== 'static' || !inStart.has(i.from) || forbidden.has(i.to) || i.from === i.to) continue;
    const pair = `${i.from} ${i.to}`;
    pairs.set(pair, [...(pairs.get(pair) ?? []), importKey(snapshot, i)]);
  }
  const all = [...pairs.values()];
  const holds = (chosen: string[][]) => reached(snapshot, starts, new Set(chosen.flat())).has(target);
  const pick = (size: number, from: number, chosen: string[][]): boolean => {
    if (size === 0) return !holds(chosen);
    for (let at = from; at <= all.length - size; at++) if (pick(size - 1, at + 1, [...chosen, all[at]])) return true;
    return false;
  };
  for (let size = 0; size <= Math.min(4, all.length); size++) if (pick(size, 0, [])) return size;
  return null;
}

describe('the cheapest cut', () => {
  it('frees its target, and no smaller one does', () => {
    fc.assert(
      fc.property(anyApp(8), fc.nat(), fc.nat(), (snapshot, t, s) => {
        const target = t % snapshot.modules.length;
        const shown = snapshot.modules[s % snapshot.modules.length].path;
        const r = { ...snapshot.routes[0], parts: [part('shown', shown)] };
        const cut = cheapestCut(snapshot, BASELINE, r, [target]);
        const slow = slowCut(snapshot, r, target);
        if (cut === null) {
          expect(slow).toBeNull();
          return;
        }
        expect(reached(snapshot, startModules(snapshot, r), new Set(cut.imports)).has(target)).toBe(false);
        const pairs = new Set(cut.imports.map((key) => key.replace(/#\d+$/, ''))).size;
        if (slow !== null) expect(pairs).toBe(slow);
        else expect(pairs).toBeGreaterThan(4);
      }),
    );
  });

  const app = sketch({
    main: { imports: ['page'] },
    page: { imports: ['dialog', 'shared', 'hero'] },
    dialog: { imports: ['lib', 'shared'] },
    shared: { imports: ['lib'] },
    hero: { imports: ['lib'] },
    lib: { package: 'kit', imports: ['inner'] },
    inner: { package: 'kit' },
  });
  const home = (more = {}) => route('/', 'page', more);
  const at = (path: string) => app.modules.findIndex((m) => m.path === path);

  it('names every importer that holds a package, and spares the inside of packages', () => {
    expect(cheapestCut(app, BASELINE, home(), [at('lib')])?.imports).toHaveLength(3);
    expect(cheapestCut(app, BASELINE, home(), [at('inner')])?.imports).not.toContain('lib::inner');
  });

  it('prefers parts that are made to come later, among as few imports', () => {
    const two = sketch({ main: { imports: ['page'] }, page: { imports: ['a'] }, a: { imports: ['b'] }, b: {} });
    const with_ = (later: string) => route('/', 'page', { parts: [part(later, later, { place: 'action' })] });
    expect(cheapestCut(two, BASELINE, with_('a'), [3])?.imports).toEqual(['page::a']);
    expect(cheapestCut(two, BASELINE, with_('b'), [3])?.imports).toEqual(['a::b']);
  });

  it('goes around what a module needs while it starts', () => {
    const chain = sketch({
      main: { imports: ['page'] },
      page: { imports: ['a'] },
      a: { imports: ['kit'] },
      kit: { package: 'k' },
    });
    const needed = chain.imports.map((i) =>
      chain.modules[i.to].path === 'kit' ? { ...i, sync: { reason: 'r', line: 1 } } : i,
    );
    const home = route('/', 'page');
    expect(cheapestCut(chain, BASELINE, home, [3])?.imports).toEqual(['a::kit']);
    expect(cheapestCut({ ...chain, imports: needed }, BASELINE, home, [3])?.imports).toEqual(['page::a']);
  });

  it('never cuts what the first screen shows, and says when it can’t be done', () => {
    const hero = home({ parts: [part('hero', 'hero')] });
    expect(cheapestCut(app, BASELINE, hero, [at('lib')])?.imports).toContain('hero::lib');
    const lib = home({ parts: [part('lib', 'lib')] });
    expect(cheapestCut(app, BASELINE, lib, [at('lib')])).toBeNull();
    expect(cheapestCut(app, BASELINE, home(), [at('page')])).toBeNull();
    const detached = { ...BASELINE, decisions: [{ kind: 'detach' as const, module: 'lib' }] };
    expect(cheapestCut(app, detached, home(), [at('lib')])).toEqual({ imports: [] });
  });
});
