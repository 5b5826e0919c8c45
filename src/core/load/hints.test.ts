import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { VisitCompiler } from '../visits/program.ts';
import type { Hint } from '../vocabulary/hints.ts';
import { compileLoad } from './compile.ts';
import { leaveInteraction, moveInteraction, partInteraction } from './types.ts';

const image = {
  kind: 'image' as const,
  bytes: 9000,
  serverMs: 10,
  place: 'first screen' as const,
  lazy: false,
  width: 100,
  height: 100,
};
const app = sketch(
  {
    main: { imports: ['~home', '~list'] },
    home: { imports: ['~dialog', '~below'] },
    dialog: { bytes: 20_000 },
    below: {},
    list: {},
    admin: { imports: ['desk'] },
    desk: {},
  },
  {
    entries: [
      { realm: 'site', kind: 'document', document: 'index.html', modules: ['main'] },
      { realm: 'admin', kind: 'document', document: 'admin.html', modules: ['admin'] },
    ],
    routes: [
      route('/', 'home', {
        links: ['/list', '/admin'],
        content: [{ ...image, id: 'pic', address: '/pic.jpg', foundIn: 'document' }],
        parts: [part('dialog', 'dialog', { place: 'action' }), part('below', 'below', { place: 'below' })],
      }),
      route('/list', 'list'),
      route('/admin', 'desk', { realm: 'admin' }),
    ],
  },
);

const withHint = (hint: Partial<Hint> & Pick<Hint, 'kind' | 'target'>): Plan => ({
  ...BASELINE,
  decisions: [{ kind: 'hint', hint: { place: 'markup', routes: ['/'], ...hint } }],
});
const program = (plan: Plan, pattern = '/') => compileLoad(planned(app, plan), pattern);
const documentOf = (plan: Plan) => new VisitCompiler(planned(app, plan)).document('/');

describe('hints that comments in the code give', () => {
  const commented = (from: string, to: string, ahead: 'prefetch' | 'preload') => ({
    ...app,
    imports: app.imports.map((i) =>
      app.modules[i.from].path === from && app.modules[i.to].path === to ? { ...i, ahead } : i,
    ),
  });
  const linked = (snapshot: typeof app, pattern: string) => {
    const { requests } = simulate(compileLoad(planned(snapshot, BASELINE), pattern), DEFAULT_CONDITIONS);
    return requests.filter((r) => r.hint).map((r) => r.name);
  };

  it('fetch what is imported once the module that asks has run', () => {
    expect(linked(commented('home', 'dialog', 'prefetch'), '/')).toEqual(['dialog']);
    expect(linked(commented('home', 'dialog', 'preload'), '/')).toEqual(['dialog']);
  });

  it('fetch another page ahead, from where its import stands, and nothing where that doesn’t run', () => {
    expect(linked(commented('main', 'list', 'prefetch'), '/')).toEqual(['list']);
    expect(linked(commented('home', 'dialog', 'prefetch'), '/list')).toEqual([]);
  });
});

describe('hints that a script adds', () => {
  const dialog = { kind: 'split point', module: 'dialog' } as const;

  it('begin at their moment on the landing', () => {
    const plan = withHint({ kind: 'prefetch', target: dialog, place: 'script', on: { on: 'after', ms: 700 } });
    const { requests } = simulate(program(plan), DEFAULT_CONDITIONS);
    const entry = requests.find((r) => r.address.includes('main') || r.hop === 1)!;
    const found = requests.find((r) => r.name === 'dialog')!;
    expect(found).toMatchObject({ role: 'in case', hint: true });
    expect(found.discovered - entry.evaluated).toBeCloseTo(700, 0);
  });

  it('begin when a part comes into view, or when the pointer rests on what leads to it', () => {
    const below = { kind: 'split point', module: 'below' } as const;
    const seen = withHint({ kind: 'prefetch', target: below, place: 'script', on: { on: 'visible' } });
    const follow = program(seen).resources.flatMap((r) => r.follow);
    expect(follow.some((a) => a.when === 'visible' && a.do.kind === 'link')).toBe(true);
    const near = withHint({ kind: 'modulepreload', target: dialog, place: 'script', on: { on: 'approach' } });
    const { program: opened, interactions } = documentOf(near);
    const interaction = opened.interactions![interactions.get(partInteraction('/', 'dialog'))!];
    expect(interaction.approach.map((a) => a.do.kind)).toEqual(['link']);
    expect(
      program(near)
        .resources.flatMap((r) => r.follow)
        .some((a) => a.do.kind === 'link'),
    ).toBe(false);
  });

  it('for a route work on the approach to its link', () => {
    const target = { kind: 'route', pattern: '/list' } as const;
    const { program: opened, interactions } = documentOf(
      withHint({ kind: 'prefetch', target, place: 'script', on: { on: 'approach' } }),
    );
    expect(opened.interactions![interactions.get(moveInteraction('/list'))!].approach).toHaveLength(1);
  });
});

describe('rules about next documents', () => {
  const target = { kind: 'route', pattern: '/admin' } as const;

  it('stand in the markup when they begin at once', () => {
    const { document } = program(withHint({ kind: 'prefetch document', target }));
    const [rules] = document.markup.filter((m) => m.tag === 'rules');
    expect(rules).toMatchObject({ do: [{ kind: 'rule', does: 'fetch', address: '/admin' }] });
    expect(program(withHint({ kind: 'prefetch document', target }), '/list').document.markup).not.toContainEqual(
      expect.objectContaining({ tag: 'rules' }),
    );
  });

  it('on the approach wait until the pointer has rested, also where the move leaves the document', () => {
    const plan = withHint({ kind: 'prepare document', target, on: { on: 'approach' } });
    const { program: opened, interactions } = documentOf(plan);
    expect(interactions.has(moveInteraction('/admin'))).toBe(false);
    const [rule] = opened.interactions![interactions.get(leaveInteraction('/admin'))!].approach;
    expect(rule).toMatchObject({ when: 'timer', delayMs: 200, do: { kind: 'rule', does: 'prepare' } });
  });

  it('that prepare a document of the same build ask for its files as well', () => {
    const plan = withHint({ kind: 'prepare document', target: { kind: 'route', pattern: '/list' } });
    const { requests } = simulate(program(plan), DEFAULT_CONDITIONS);
    const ahead = requests.filter((r) => r.role === 'in case').map((r) => r.name);
    expect(ahead).toContain('document of /list');
    expect(ahead).toContain('list');
  });
});

describe('links in the head', () => {
  const target = { kind: 'asset', address: '/pic.jpg' } as const;
  const orderOf = (hint: Partial<Hint>) => {
    const { document } = program(withHint({ kind: 'preload', target, ...hint }));
    const at = (found: (m: (typeof document.markup)[number]) => boolean) => document.markup.findIndex(found);
    const entry = at((m) => m.tag === 'script');
    const end = at((m) => m.tag === 'body');
    const link = at((m) => m.tag === 'link' && m.rel === (hint.kind ?? 'preload'));
    expect(entry).toBeGreaterThanOrEqual(0);
    expect(link).toBeLessThan(end);
    return link < entry ? 'before' : 'after';
  };

  it('stand before its scripts when they are urgent, and after them when they can wait', () => {
    expect(orderOf({ as: 'fetch' })).toBe('before');
    expect(orderOf({ priority: 'high' })).toBe('before');
    expect(orderOf({})).toBe('after');
    expect(orderOf({ as: 'fetch', priority: 'low' })).toBe('after');
    expect(orderOf({ kind: 'prefetch' })).toBe('after');
    expect(orderOf({ kind: 'modulepreload', target: { kind: 'split point', module: 'dialog' } })).toBe('before');
  });
});

describe('fetch priority', () => {
  it('is put on the tag that is there', () => {
    const target = { kind: 'asset', address: '/pic.jpg' } as const;
    const { document } = program(withHint({ kind: 'fetch priority', target, priority: 'high' }));
    expect(document.markup.find((m) => m.tag === 'img')).toMatchObject({ fetchpriority: 'high' });
    const { requests } = simulate(
      program(withHint({ kind: 'fetch priority', target, priority: 'low' })),
      DEFAULT_CONDITIONS,
    );
    expect(requests.filter((r) => r.address === '/pic.jpg').map((r) => r.priority)).toEqual([3]);
  });

  it('and kind, mode and conditions are carried into the link', () => {
    const target = { kind: 'asset', address: '/pic.jpg' } as const;
    const { document } = program(
      withHint({
        kind: 'preload',
        target,
        as: 'fetch',
        crossorigin: true,
        media: { maxWidth: 300 },
        notForDataSaver: true,
      }),
    );
    expect(document.markup[0]).toMatchObject({
      rel: 'preload',
      as: 'fetch',
      crossorigin: true,
      media: { maxWidth: 300 },
      notForDataSaver: true,
    });
  });
});
