import fc from 'fast-check';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import type { RouteChange, RouteProposal } from '../snapshot/route-types.ts';
import { amend, rebuiltRoutes, sameApp } from './amend.ts';
import { areaOf, asRead, withChange, withoutRoute, withRoute } from './edit.ts';
import { AMENDMENTS, type Amendments, NO_AMENDMENTS } from './types.ts';

const snapshot = sketch(
  { main: { imports: ['a', 'b'] }, a: {}, b: {} },
  {
    routes: [route('/', 'a'), route('/crew', 'b'), route('/crew/:id', 'b')],
    unusedRules: [
      { module: 'a', line: 1, selector: '.tone-red', bytes: 20, missing: ['tone-red'] },
      { module: 'a', line: 2, selector: '.gone', bytes: 10, missing: ['gone'] },
    ],
  },
);
const site = (pattern: string) => ({ realm: 'site', pattern });
const patterns = (s: typeof snapshot) => s.routes.map((r) => r.pattern);

describe('amendments', () => {
  it.each<[keyof Amendments, unknown, boolean]>([
    ['base', '/app/', false],
    ['routes', [], false],
    ['keep', [], false],
    ['scripts', {}, false],
    ['visitors', {}, false],
    ['confirmed', true, true],
    ['visits', [], true],
    ['limits', [], true],
  ])('tell by %s whether the app is another one', (field, value, same) => {
    const changed = { ...NO_AMENDMENTS, [field]: value };
    expect(sameApp(NO_AMENDMENTS, changed)).toBe(same);
    expect(sameApp(changed, changed)).toBe(true);
  });

  it('tell of a route that isn’t there any more, and of one whose entry is gone', () => {
    const lost = { ...site('/lost'), kind: 'changed' as const, change: { rendering: 'server' as const } };
    const added = { ...site('/new'), kind: 'added' as const, change: { page: 'a' } };
    const elsewhere = { ...added, realm: 'office' };
    const { snapshot: now, stale } = amend(snapshot, { ...NO_AMENDMENTS, routes: [lost, added, elsewhere] });
    expect(patterns(now)).toContain('/new');
    expect(stale.map((s) => s.reason)).toEqual([
      'there is no such route any more',
      'there is no entry office any more',
    ]);
  });

  it('of nothing leave the very same snapshot', () => {
    expect(amend(snapshot, NO_AMENDMENTS)).toEqual({ snapshot, stale: [], unproposed: [] });
    expect(amend(snapshot, { ...NO_AMENDMENTS, confirmed: true }).snapshot).toBe(snapshot);
  });

  it('change fields of a route one by one, keep the others, and follow it through a new pattern', () => {
    let made = withChange(NO_AMENDMENTS, site('/'), { pattern: '/start' });
    made = withChange(made, site('/start'), { rendering: 'server' });
    made = withChange(made, site('/start'), { parts: [part('hero', 'b')] });
    expect(made.routes).toHaveLength(1);
    const { snapshot: now, stale } = amend(snapshot, made);
    expect(now.routes[0]).toEqual({
      ...snapshot.routes[0],
      pattern: '/start',
      rendering: 'server',
      parts: [part('hero', 'b')],
    });
    expect(stale).toEqual([]);
    expect(amend(snapshot, asRead(made, site('/start'))).snapshot).toBe(snapshot);
  });

  it('add and remove routes, and forget an added one that is removed', () => {
    const added = withRoute(NO_AMENDMENTS, site('/new'), 'b');
    expect(patterns(amend(snapshot, added).snapshot)).toEqual(['/', '/crew', '/crew/:id', '/new']);
    expect(withoutRoute(added, site('/new'))).toEqual(NO_AMENDMENTS);
    const removed = withoutRoute(withChange(NO_AMENDMENTS, site('/crew'), { links: ['/'] }), site('/crew'));
    expect(patterns(amend(snapshot, removed).snapshot)).toEqual(['/', '/crew/:id']);
  });

  it('that name what is gone are listed, and what was read stays', () => {
    const made = [
      withChange(NO_AMENDMENTS, site('/'), { page: 'lost' }),
      withChange(NO_AMENDMENTS, site('/old'), { rendering: 'server' }),
      withRoute(NO_AMENDMENTS, { realm: 'admin', pattern: '/x' }, 'b'),
      withChange(NO_AMENDMENTS, site('/crew'), { pattern: '/' }),
    ].map((a) => amend(snapshot, a));
    expect(made.map((m) => m.stale.map((s) => s.reason))).toEqual([
      ['names the module lost, which is not in this snapshot'],
      ['there is no such route any more'],
      ['there is no entry admin any more'],
      ['two routes have this pattern; the first one counts'],
    ]);
    for (const m of made) expect(patterns(m.snapshot)).toEqual(patterns(snapshot));
  });

  it('keep style rules whose names are composed, and set the base address', () => {
    const { snapshot: now } = amend(snapshot, { ...NO_AMENDMENTS, keep: ['tone-*'], base: '/app/' });
    expect(now.unusedRules.map((r) => r.selector)).toEqual(['.gone']);
    expect(now.base).toBe('/app/');
    expect(amend(snapshot, { ...NO_AMENDMENTS, keep: ['tone.red'] }).snapshot.unusedRules).toHaveLength(2);
  });

  it('know the area of a route', () => {
    expect(areaOf(snapshot.routes, site('/crew/:id')).map((r) => r.pattern)).toEqual(['/crew', '/crew/:id']);
    expect(areaOf(snapshot.routes, site('/')).map((r) => r.pattern)).toEqual(['/']);
  });
});

describe('any row of corrections', () => {
  const step = fc.oneof(
    fc.record({ do: fc.constant('rename' as const), at: fc.nat(), to: fc.constantFrom('/x', '/y', '/z') }),
    fc.record({
      do: fc.constant('change' as const),
      at: fc.nat(),
      to: fc.constantFrom('server' as const, 'client' as const),
    }),
    fc.record({ do: fc.constant('remove' as const), at: fc.nat() }),
    fc.record({ do: fc.constant('add' as const), to: fc.constantFrom('/new', '/x', '/crew') }),
  );

  it('never leaves two routes with one pattern, nor anything stale, and can be taken back to what was read', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 8 }), (steps) => {
        let made = NO_AMENDMENTS;
        for (const s of steps) {
          const { routes } = amend(snapshot, made).snapshot;
          const taken = new Set(routes.map((r) => r.pattern));
          if (s.do === 'add') {
            if (!taken.has(s.to) && !snapshot.routes.some((r) => r.pattern === s.to))
              made = withRoute(made, site(s.to), 'a');
            continue;
          }
          if (routes.length === 0) continue;
          const { pattern } = routes[s.at % routes.length];
          if (s.do === 'remove') made = withoutRoute(made, site(pattern));
          else if (s.do === 'change') made = withChange(made, site(pattern), { rendering: s.to });
          else if (!taken.has(s.to)) made = withChange(made, site(pattern), { pattern: s.to });
        }
        const { snapshot: now, stale } = amend(snapshot, made);
        expect(stale).toEqual([]);
        expect(new Set(patterns(now)).size).toBe(now.routes.length);
        let back = now.routes.reduce((a, r) => asRead(a, site(r.pattern)), made);
        back = { ...back, routes: back.routes.filter((a) => a.kind !== 'removed') };
        expect(amend(snapshot, back).snapshot).toBe(snapshot);
      }),
    );
  });
});

describe('amendments from outside', () => {
  const full = {
    confirmed: true,
    base: '/app/',
    keep: ['x-*'],
    routes: [
      { realm: 'site', pattern: '/', kind: 'changed', change: { rendering: 'server', parts: [part('p', 'a')] } },
    ],
  };

  it('are taken as they are when they fit', () => {
    expect(AMENDMENTS.check(full, 'amendments')).toEqual(full);
    expect(AMENDMENTS.check({}, 'amendments')).toEqual(NO_AMENDMENTS);
  });

  it.each([
    [{ base: 'app/' }, 'amendments.base'],
    [{ base: '/app' }, 'amendments.base'],
    [{ base: '//cdn.example/' }, 'amendments.base'],
    [{ base: '/a b/' }, 'amendments.base'],
    [{ base: '/a/../' }, 'amendments.base'],
    [{ keep: [1] }, 'amendments.keep[0]'],
    [{ routes: [{ ...full.routes[0], pattern: 'x' }] }, 'amendments.routes[0].pattern'],
    [{ routes: [{ ...full.routes[0], change: { rendering: 'magic' } }] }, 'amendments.routes[0].change.rendering'],
    [
      { routes: [{ ...full.routes[0], change: { document: { bytes: -1, serverMs: 1 } } }] },
      'amendments.routes[0].change.document.bytes',
    ],
    [
      { routes: [{ ...full.routes[0], change: { parts: [part('p', 'a'), part('p', 'b')] } }] },
      'amendments.routes[0].change.parts[1].id',
    ],
  ])('that don’t fit (%j) are refused by field', (wrong, at) => {
    expect(() => AMENDMENTS.check(wrong, 'amendments')).toThrow(expect.objectContaining({ at }));
  });
});

describe('a route with other code', () => {
  const own = [part('old', 'a')];
  const read = {
    ...snapshot,
    routes: [{ ...route('/', 'a'), parts: own }, ...snapshot.routes.slice(1)],
  };
  const shows = { content: [], data: [], parts: [part('new', 'b')] };
  const by = (change: RouteChange, kind: 'changed' | 'added' = 'changed', pattern = '/') => ({
    ...NO_AMENDMENTS,
    routes: [{ ...site(pattern), kind, change }],
  });
  const seen = (proposals: RouteProposal[], amendments: Amendments) => {
    const { snapshot: now, unproposed } = amend({ ...read, proposals }, amendments);
    return { parts: now.routes.map((r) => [r.pattern, r.parts.map((p) => p.id)]), unproposed };
  };
  const forB = { ...site('/'), page: 'b', layouts: [], ...shows };

  it('has the parts that were proposed for that code, and only for that', () => {
    const { parts, unproposed } = seen([forB], by({ page: 'b' }));
    expect(parts[0]).toEqual(['/', ['new']]);
    expect(unproposed).toEqual([]);
    for (const other of [{ page: 'main' }, { layouts: ['b'] }, { page: 'b', layouts: ['main'] }]) {
      const now = seen([forB], by(other));
      expect(now.parts[0]).toEqual(['/', ['old']]);
      expect(now.unproposed).toEqual([site('/')]);
    }
  });

  it('keeps the parts that a person said, and needs none proposed', () => {
    const said = by({ page: 'b', parts: [part('mine', 'main')] });
    expect(seen([forB], said)).toMatchObject({
      parts: [
        ['/', ['mine']],
        ['/crew', []],
        ['/crew/:id', []],
      ],
      unproposed: [],
    });
    expect(seen([], said).unproposed).toEqual([]);
  });

  it('is told by the pattern that it is shown under, also where it was added; not where nothing else was corrected', () => {
    expect(seen([], by({ page: 'b', pattern: '/start' })).unproposed).toEqual([site('/start')]);
    expect(seen([], by({ page: 'b' }, 'added', '/new')).unproposed).toEqual([site('/new')]);
    const added = { ...forB, pattern: '/new' };
    expect(seen([added], by({ page: 'b' }, 'added', '/new')).parts.at(-1)).toEqual(['/new', ['new']]);
    expect(seen([], by({ rendering: 'server' })).unproposed).toEqual([]);
    // The page as it was read.
    expect(seen([], by({ page: 'a' })).unproposed).toEqual([]);
    // What isn't there any more.
    expect(seen([], by({ layouts: ['a'] }, 'changed', '/lost')).unproposed).toEqual([]);
  });

  it('is named with its page and layouts for the reading; a removed one isn’t', () => {
    const routes = [
      ...by({ page: 'b' }).routes,
      ...by({ layouts: ['a'], rendering: 'server' }, 'changed', '/crew').routes,
      ...by({ links: [] }, 'changed', '/crew/:id').routes,
      { ...site('/gone'), kind: 'removed' as const, change: {} },
    ];
    expect(rebuiltRoutes({ ...NO_AMENDMENTS, routes })).toEqual([
      { ...site('/'), page: 'b' },
      { ...site('/crew'), layouts: ['a'] },
    ]);
  });
});
