import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import type { ClassicScript } from '../snapshot/document-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { Hint } from '../vocabulary/hints.ts';
import { compileLoad } from './compile.ts';

const chat: ClassicScript = {
  id: 'chat',
  name: 'chat',
  address: 'https://talk.example/c.js',
  bytes: 9000,
  serverMs: 10,
  evaluationMs: 5,
  placement: 'blocking',
  evidence: null,
};

const app = sketch(
  {
    main: { imports: ['table', 'main.css'] },
    'main.css': { kind: 'style' },
    table: { imports: ['frame', 'home', '~shop', '~area'] },
    frame: { imports: ['~menu'] },
    menu: {},
    home: { imports: ['~hero', '~below', '~dialog', 'shared'] },
    hero: { imports: ['shared'] },
    below: {},
    dialog: { imports: ['heavy'] },
    heavy: { bytes: 90_000 },
    shared: {},
    shop: { imports: ['~cart', 'shop.css'] },
    'shop.css': { kind: 'style' },
    cart: {},
    area: { imports: ['~inner'] },
    inner: { imports: ['~grid'] },
    grid: {},
  },
  {
    scripts: [chat],
    routes: [
      route('/', 'home', {
        layouts: ['frame'],
        content: [
          {
            id: 'pic',
            kind: 'image',
            address: '/pic.jpg',
            bytes: 30_000,
            serverMs: 5,
            foundIn: { module: 'hero' },
            place: 'first screen',
            lazy: false,
          },
          {
            id: 'logo',
            kind: 'image',
            address: '/logo.png',
            bytes: 3000,
            serverMs: 5,
            foundIn: 'document',
            place: 'first screen',
            lazy: false,
          },
        ],
        data: [{ id: 'list', address: '/api/list', bytes: 5000, serverMs: 90, module: 'home' }],
        parts: [
          part('menu', 'menu', { place: 'conditional', condition: { kind: 'media', maxWidth: 640 } }),
          part('hero', 'hero', { needs: ['pic'] }),
          part('below', 'below', { place: 'below' }),
          part('dialog', 'dialog', { place: 'action', action: 'open' }),
        ],
      }),
      route('/shop', 'shop', { layouts: ['frame'], rendering: 'server', parts: [part('cart', 'cart')] }),
      route('/area/inner', 'inner', { layouts: ['frame', 'area'], parts: [part('grid', 'grid')] }),
    ],
  },
);

function plan(...decisions: Decision[]): Plan {
  return { ...BASELINE, name: 'test', decisions };
}

function land(pattern: string, made: Plan = BASELINE, snapshot: Snapshot = app) {
  return predict(snapshot, made, pattern, DEFAULT_CONDITIONS);
}

function names(pattern: string, made: Plan = BASELINE): string[] {
  return land(pattern, made).timeline.requests.map((r) => r.name);
}

describe('compileLoad', () => {
  it('asks only for what takes part in the landing', () => {
    expect(names('/').sort()).toEqual(
      ['chat', 'document', 'entry', 'entry styles', 'hero', 'list', 'logo', 'menu', 'pic'].sort(),
    );
    expect(names('/area/inner')).toEqual(expect.arrayContaining(['area', 'inner', 'grid']));
    expect(names('/area/inner')).not.toEqual(expect.arrayContaining(['hero']));
  });

  it('discovers a chain of deferred layouts stair by stair', () => {
    const hop = new Map(land('/area/inner').timeline.requests.map((r) => [r.name, r.hop]));
    expect([hop.get('entry'), hop.get('area'), hop.get('inner'), hop.get('grid')]).toEqual([1, 2, 3, 4]);
  });

  it('lists the files of a server-rendered route in its document, and shows it before its script', () => {
    const { timeline, reading } = land('/shop');
    const hop = new Map(timeline.requests.map((r) => [r.name, r.hop]));
    expect([hop.get('shop'), hop.get('cart'), hop.get('shop styles')]).toEqual([1, 1, 1]);
    expect(reading.milestones.firstContent).toBeLessThan(reading.milestones.interactive);
  });

  it('runs a page only after its layouts, though both travel at once', () => {
    const snapshot = sketch(
      { main: { imports: ['~frame', '~page'] }, frame: { bytes: 200_000 }, page: { bytes: 500 } },
      { routes: [route('/', 'page', { layouts: ['frame'] })] },
    );
    const { timeline } = land('/', BASELINE, snapshot);
    const at = new Map(timeline.requests.map((r) => [r.name, r]));
    expect(at.get('page')!.discovered).toBe(at.get('frame')!.discovered);
    expect(at.get('page')!.evaluated).toBeGreaterThan(at.get('frame')!.evaluated);
  });

  it('fetches by the plan’s trigger instead of the part’s place', () => {
    expect(names('/', plan({ kind: 'trigger', splitPoint: 'dialog', fetch: { on: 'idle' } }))).toContain('dialog');
    expect(names('/', plan({ kind: 'trigger', splitPoint: 'hero', fetch: { on: 'action' } }))).not.toContain('hero');
    const idle = land('/', plan({ kind: 'trigger', splitPoint: 'dialog', fetch: { on: 'idle' } }));
    // Nobody has opened it by then.
    expect(idle.timeline.requests.find((r) => r.name === 'dialog')?.role).toBe('in case');
  });

  it('puts hints into the documents that can use them', () => {
    const hint = (module: string, routes: string[] = []): Plan =>
      plan({
        kind: 'hint',
        hint: { kind: 'modulepreload', target: { kind: 'split point', module }, place: 'markup', routes },
      });
    const hero = land('/', hint('hero'));
    expect(hero.timeline.requests.find((r) => r.name === 'hero')).toMatchObject({ hop: 1, role: 'hinted' });
    expect(names('/area/inner', hint('hero'))).not.toContain('hero');
    expect(
      land('/area/inner', hint('hero', ['/area/inner'])).timeline.requests.find((r) => r.name === 'hero')?.role,
    ).toBe('wasted');
    const picture = plan({
      kind: 'hint',
      hint: { kind: 'preload', target: { kind: 'asset', address: '/pic.jpg' }, place: 'header', routes: [] },
    });
    const before = land('/').timeline.requests.find((r) => r.name === 'pic')!;
    const after = land('/', picture).timeline.requests.find((r) => r.name === 'pic')!;
    expect(after.discovered).toBeLessThan(before.discovered);
    const next = plan({
      kind: 'hint',
      hint: { kind: 'prefetch', target: { kind: 'route', pattern: '/area/inner' }, place: 'markup', routes: ['/'] },
    });
    expect(
      land('/', next)
        .timeline.requests.filter((r) => r.role === 'in case')
        .map((r) => r.name)
        .sort(),
    ).toEqual(['area', 'inner']);
    const origin = plan({
      kind: 'hint',
      hint: {
        kind: 'preconnect',
        target: { kind: 'origin', origin: 'https://talk.example' },
        place: 'markup',
        routes: [],
      },
    });
    // A classic script is asked for with credentials: a connection without them would serve nobody.
    const [link] = land('/', origin).program.document.markup;
    expect(link).toMatchObject({ rel: 'preconnect', origin: 'https://talk.example' });
    expect(link).not.toHaveProperty('crossorigin');
  });

  it('connects ahead in every way in which a route asks an origin', () => {
    const connect = (hint: { origin: string; crossorigin?: boolean }): Decision => {
      const { origin, ...mode } = hint;
      return {
        kind: 'hint',
        hint: { kind: 'preconnect', target: { kind: 'origin', origin }, place: 'markup', routes: [], ...mode },
      };
    };
    const modes = (hint: { origin: string; crossorigin?: boolean }, of: Snapshot) => {
      const decided = plan(connect(hint));
      const { document } = compileLoad(planned(of, decided), '/');
      return document.markup.flatMap((m) =>
        m.tag === 'link' && m.rel === 'preconnect' ? [m.crossorigin ?? false] : [],
      );
    };
    const [home, ...others] = app.routes;
    const call = { id: 'times', address: 'https://talk.example/times', module: 'home', bytes: 900, serverMs: 20 };
    const both: Snapshot = { ...app, routes: [{ ...home, data: [...home.data, call] }, ...others] };
    expect(modes({ origin: 'https://talk.example' }, app)).toEqual([false]);
    expect(modes({ origin: 'https://talk.example' }, both)).toEqual([false, true]);
    expect(modes({ origin: 'https://talk.example', crossorigin: true }, app)).toEqual([true]);
    expect(modes({ origin: 'https://unknown.example' }, app)).toEqual([true]);
    expect(modes({ origin: 'https://cdn.example' }, { ...app, base: 'https://cdn.example/app/' })).toEqual([
      false,
      true,
    ]);
  });

  it('connects for the files of the build in the way in which they are asked for: styles with credentials, scripts without', () => {
    const modes = (modules: Parameters<typeof sketch>[0]) => {
      const of = sketch(modules, { routes: [route('/', 'home')], base: 'https://cdn.example/app/' });
      const target = { kind: 'origin', origin: 'https://cdn.example' } as const;
      const hint = { kind: 'preconnect', place: 'markup', routes: [], target } satisfies Hint;
      return compileLoad(planned(of, plan({ kind: 'hint', hint })), '/').document.markup.flatMap((m) =>
        m.tag === 'link' && m.rel === 'preconnect' ? [m.crossorigin ?? false] : [],
      );
    };
    expect(modes({ home: {} })).toEqual([true]);
    expect(modes({ home: { imports: ['home.css'] }, 'home.css': { kind: 'style' } })).toEqual([false, true]);
  });

  it('places a classic script in every way', () => {
    const at = (placement: ClassicScript['placement']) =>
      land('/shop', plan({ kind: 'script', script: 'chat', placement }));
    const content = (p: ClassicScript['placement']) => at(p).reading.milestones.firstContent;
    expect(content('blocking')).toBeGreaterThan(content('async'));
    expect(content('defer')).toBeLessThan(content('blocking'));
    const late = at('after load').timeline;
    const chatRequest = late.requests.find((r) => r.name === 'chat')!;
    expect(chatRequest.discovered).toBeGreaterThanOrEqual(late.moments.load);
    expect(chatRequest.role).toBe('on demand');
    expect(at('inlined').timeline.requests.some((r) => r.name === 'chat')).toBe(false);
    expect(at('inlined').program.document.bytes).toBeGreaterThan(at('async').program.document.bytes + 8000);
    for (const p of ['module', 'end of body'] as const)
      expect(at(p).timeline.requests.find((r) => r.name === 'chat')?.evaluated).toBeGreaterThan(0);
  });

  it('lets a browser discover static imports between files when the plan says so', () => {
    const snapshot = sketch(
      { main: { imports: ['~a', '~b'] }, a: { imports: ['lib'] }, b: { imports: ['lib'] }, lib: {} },
      { routes: [route('/', 'a'), route('/b', 'b')] },
    );
    const hop = (made: Plan) => land('/', made, snapshot).timeline.requests.find((r) => r.name === 'lib')!.hop;
    expect(hop(BASELINE)).toBe(2);
    expect(hop(plan({ kind: 'loader', loader: 'discovered' }))).toBe(3);
  });

  it('names the known routes when asked for one that isn’t there', () => {
    expect(() => compileLoad(planned(app, BASELINE), '/nowhere')).toThrow('/, /shop, /area/inner');
  });
});

describe('links that a document carries by itself', () => {
  const link = (rel: 'preload' | 'preconnect' | 'modulepreload', address: string, more = {}) => ({
    realm: 'site',
    rel,
    address,
    as: 'image',
    crossorigin: false,
    priority: 'auto' as const,
    bytes: 700,
    evidence: { path: 'index.html', line: 4 },
    ...more,
  });
  const linked = (...links: ReturnType<typeof link>[]) =>
    predict({ ...app, links }, BASELINE, '/', DEFAULT_CONDITIONS).timeline.requests;

  it('bring forward what they name: images, modules’ files, and files that nobody else knows', () => {
    const late = linked().find((r) => r.address === '/pic.jpg')!;
    const early = linked(link('preload', '/pic.jpg')).find((r) => r.address === '/pic.jpg')!;
    expect(early.sent).toBeLessThan(late.sent);
    expect(early).toMatchObject({ hint: true, hop: 1 });
    const known = linked(link('modulepreload', '/hero', { as: 'script' })).filter((r) => r.name === 'hero');
    expect(known).toHaveLength(1);
    expect(known[0].hop).toBe(1);
    const other = linked(link('preload', '/other.woff2', { as: 'font' })).find((r) => r.address === '/other.woff2');
    expect(other).toMatchObject({ type: 'font', bytes: 700 });
  });

  it('only count in documents of their own realm', () => {
    expect(linked(link('preload', '/x.jpg', { realm: 'admin' })).some((r) => r.address === '/x.jpg')).toBe(false);
  });
});
