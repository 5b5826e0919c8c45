import { InputError } from '../errors.ts';
import type { Action, LoadProgram, MarkupItem } from '../load/types.ts';
import { parseLoadCase } from './load-case.ts';

type Fields = Record<string, unknown>;

const RESOURCES = {
  '/a.css': { type: 'style', bytes: 4000, serverMs: 5 },
  '/a.js': { type: 'script', bytes: 300, serverMs: 6, cpuMs: 7 },
  '/b.js': { type: 'script', bytes: 200, serverMs: 0 },
  '/data': { type: 'fetch', bytes: 70, serverMs: 60 },
  '/p.png': { type: 'image', bytes: 10, serverMs: 1 },
  '/f.woff2': { type: 'font', bytes: 11, serverMs: 2 },
};
const AT = Object.fromEntries(Object.keys(RESOURCES).map((href, i) => [href, i]));

/** What is written under `then`, which isn’t a promise’s. */
const setsOff = (...effects: Fields[]): Fields => Object.fromEntries([['then', effects]]);

function translated({ document, resources, steps, ...more }: Record<string, unknown> = {}) {
  return parseLoadCase({
    id: 'one',
    conditions: { protocol: 'h2', rttMs: 60, downKbps: 8000, upKbps: 4000 },
    document: { url: 'https://app.test/', bytes: 9000, serverMs: 120, markup: [], ...(document as Fields) },
    resources: { ...RESOURCES, ...(resources as Fields) },
    ...(steps === undefined ? {} : { steps }),
    ...more,
  });
}
const programOf = (of: Record<string, unknown> = {}): LoadProgram => translated(of).program;
const markupOf = (...markup: Fields[]): readonly MarkupItem[] => programOf({ document: { markup } }).document.markup;
/** What a script sets off, and the parts that it names. */
const follows = (...then: Fields[]): { follow: readonly Action[]; program: LoadProgram } => {
  const program = programOf({ resources: { '/a.js': { ...RESOURCES['/a.js'], ...setsOff(...then) } } });
  return { follow: program.resources[AT['/a.js']].follow, program };
};

describe('what a load case says of files', () => {
  it.each([
    ['/a.js', {}, { type: 'script', bytes: 300, serverMs: 6, cpuMs: 7, cache: 'immutable', purpose: 'start' }],
    ['/a.css', {}, { type: 'style', cpuMs: 0, cache: 'immutable', purpose: 'start', imports: [], follow: [] }],
    ['/data', {}, { type: 'fetch', cache: 'no-store', purpose: 'content', estimatedBytes: 0 }],
    ['/p.png', { cache: 'revalidate' }, { type: 'image', cache: 'revalidate', purpose: 'content' }],
    ['/f.woff2', {}, { type: 'font', name: '/f.woff2', origin: '', purpose: 'content' }],
    ['/a.js', { code: 'kit', decodedBytes: 900 }, { codeBytes: 900 }],
    ['/a.js', { code: 'kit' }, { codeBytes: 300 }],
    ['/a.js', { imports: ['/b.js'] }, { imports: [AT['/b.js']] }],
  ])('%s with %j is taken as it is', (href, more, wanted) => {
    const own = { ...RESOURCES[href as keyof typeof RESOURCES], ...more };
    const found = programOf({ resources: { [href]: own } }).resources[AT[href]];
    expect(found).toMatchObject({ address: href, ...wanted });
    if (!('code' in more)) expect(found.codeBytes).toBeUndefined();
  });

  it('puts what a script imports before it, each file once', () => {
    const { groups, document } = programOf({
      document: {
        markup: [
          { at: 1, tag: 'script', src: '/a.js', mode: 'module' },
          { at: 2, tag: 'script', src: '/b.js', mode: 'module' },
          { at: 3, tag: 'script', src: '/a.js', mode: 'module' },
        ],
      },
      resources: {
        '/a.js': { ...RESOURCES['/a.js'], imports: ['/b.js', '/c.js'] },
        '/b.js': { ...RESOURCES['/b.js'], imports: ['/c.js', '/a.js'] },
        '/c.js': { ...RESOURCES['/b.js'] },
      },
    });
    const c = Object.keys(RESOURCES).length;
    expect(groups).toEqual([
      { name: '/a.js', resources: [c, AT['/b.js'], AT['/a.js']], after: [], loader: 'discovered' },
      { name: '/b.js', resources: [c, AT['/a.js'], AT['/b.js']], after: [], loader: 'discovered' },
    ]);
    expect(document.markup.map((m) => 'group' in m && m.group)).toEqual([0, 1, 0]);
  });
});

describe('what a load case says of the document', () => {
  it('is taken with its defaults', () => {
    expect(programOf().document).toEqual({
      ...{ address: 'https://app.test/', bytes: 9000, serverMs: 120, cache: 'no-store' },
      ...{ earlyHints: [], linkHeader: [], flush: [], markup: [] },
    });
    const said = { cache: 'revalidate', flush: [{ upTo: 30, atMs: 0.5 }], redirects: [{ url: 'https://go.test/x' }] };
    expect(programOf({ document: said }).document).toMatchObject({
      ...{ cache: 'revalidate', flush: [{ upTo: 30, atMs: 0.5 }] },
      redirects: [{ origin: 'https://go.test', serverMs: 0 }],
    });
  });

  it.each([
    [{ href: '/a.js' }, { rel: 'preload', resource: AT['/a.js'], chosen: true }],
    [
      { href: '/a.js', as: 'script', fetchpriority: 'low', crossorigin: true },
      { rel: 'preload', resource: AT['/a.js'], as: 'script', crossorigin: true, fetchpriority: 'low', chosen: true },
    ],
    [
      { href: '/a.js', rel: 'modulepreload', crossorigin: false },
      { rel: 'modulepreload', resource: AT['/a.js'], crossorigin: false, chosen: true },
    ],
    [
      { href: '/a.css', rel: 'stylesheet' },
      { rel: 'stylesheet', resource: AT['/a.css'], chosen: false },
    ],
    [
      { href: 'https://far.test/x', rel: 'preconnect' },
      { rel: 'preconnect', resource: -1, origin: 'https://far.test', chosen: true },
    ],
    [
      { href: 'https://far.test/x', rel: 'dns-prefetch' },
      { rel: 'dns-prefetch', resource: -1, origin: 'https://far.test', chosen: true },
    ],
  ])('a link %j is the same in markup, headers and early hints', (link, wanted) => {
    expect(markupOf({ at: 5, tag: 'link', ...link })).toEqual([{ at: 5, tag: 'link', ...wanted }]);
    const { earlyHints, linkHeader } = programOf({ document: { earlyHints: [link], linkHeader: [link] } }).document;
    expect([earlyHints, linkHeader]).toEqual([[wanted], [wanted]]);
  });

  it('tells images in view, below and lazy ones apart by the screen', () => {
    const image = { at: 5, tag: 'img', src: '/p.png' };
    const of = (more: Fields) => markupOf({ ...image, ...more }).at(-1);
    const plain = { at: 5, tag: 'img', resource: AT['/p.png'], lazy: false, inView: true };
    expect(of({})).toEqual(plain);
    expect(of({ top: 799 })).toEqual(plain);
    expect(of({ top: 800 })).toEqual({ ...plain, inView: false });
    expect(of({ loading: 'lazy', fetchpriority: 'high' })).toEqual({ ...plain, lazy: true, fetchpriority: 'high' });
    expect(of({ actualAt: 9 })).toEqual({ ...plain, at: 9 });
  });

  it('shows texts where they stand, named or not', () => {
    const { parts, document } = programOf({
      document: {
        markup: [
          { at: 5, tag: 'text' },
          { at: 6, tag: 'text', id: 'far', top: 800 },
        ],
      },
    });
    const text = { drawnBy: 'document', interactive: false, needs: [], after: [], fill: [], renderMs: 0 };
    expect(parts).toEqual([
      { ...text, id: 'text at 5', name: 'text at 5', place: 'first screen', onItsOwn: false },
      { ...text, id: 'far', name: 'far', place: 'below', onItsOwn: false },
    ]);
    expect(document.markup).toEqual([
      { at: 5, tag: 'body' },
      { at: 5, tag: 'text', part: 0 },
      { at: 6, tag: 'text', part: 1 },
    ]);
  });

  it.each(['auto', 'block', 'swap', 'fallback', 'optional'])('lays out text in a font with display %s', (display) => {
    const face = { family: 'Reed', href: '/f.woff2', ...(display === 'auto' ? {} : { display }) };
    const { parts } = programOf({
      document: { markup: [{ at: 5, tag: 'text', font: 'Reed' }] },
      resources: { '/a.css': { ...RESOURCES['/a.css'], fontFaces: [face] } },
    });
    expect(parts[0].fonts).toEqual([{ resource: AT['/f.woff2'], declaredBy: AT['/a.css'], display }]);
  });

  it('runs scripts as their element says, and written ones where they stand', () => {
    for (const mode of ['blocking', 'async', 'defer', 'module', 'module-async'])
      expect(markupOf({ at: 4, tag: 'script', src: '/b.js', mode, fetchpriority: 'low' })).toEqual([
        { at: 4, tag: 'script', group: 0, mode, fetchpriority: 'low' },
      ]);
    expect(markupOf({ at: 4, tag: 'script', mode: 'inline', id: 'own' })).toEqual([
      { at: 4, tag: 'inline', name: 'own', cpuMs: 0, follow: [] },
    ]);
    const [written] = markupOf({
      ...{ at: 4, tag: 'script', mode: 'inline', id: 'own', cpuMs: 3 },
      ...setsOff({ do: 'img', href: '/p.png' }),
    });
    expect(written).toMatchObject({ cpuMs: 3, follow: [{ when: 'eval', do: { kind: 'img' } }] });
  });

  it('fetches documents ahead by rules as far as they are described', () => {
    const rules = { prefetch: [{ urls: ['/data', '/nowhere'] }, {}] };
    expect(markupOf({ at: 4, tag: 'script', mode: 'speculationrules', rules })).toEqual([
      {
        ...{ at: 4, tag: 'rules' },
        do: [
          {
            ...{ kind: 'rule', does: 'fetch', address: '/data' },
            instead: [{ kind: 'fetch', resource: AT['/data'], ahead: true }],
          },
        ],
      },
    ]);
    expect(markupOf({ at: 4, tag: 'script', mode: 'speculationrules', rules: {} })).toEqual([
      { at: 4, tag: 'rules', do: [] },
    ]);
  });
});

describe('what a script of a load case sets off', () => {
  it.each<[Fields, object]>([
    [
      { do: 'import', href: '/b.js' },
      { when: 'eval', do: { kind: 'import', group: 0 } },
    ],
    [
      { do: 'script', href: '/b.js' },
      { when: 'eval', do: { kind: 'script', group: 0, ordered: false } },
    ],
    [
      { do: 'script', href: '/b.js', async: true },
      { when: 'eval', do: { kind: 'script', group: 0, ordered: false } },
    ],
    [
      { do: 'script', href: '/b.js', async: false },
      { when: 'eval', do: { kind: 'script', group: 0, ordered: true } },
    ],
    [
      { do: 'fetch', href: '/data', when: 'timer', delayMs: 40 },
      { when: 'timer', delayMs: 40, do: { kind: 'fetch', resource: AT['/data'] } },
    ],
    [
      { do: 'img', href: '/p.png', when: 'paint' },
      { when: 'paint', do: { kind: 'img', resource: AT['/p.png'] } },
    ],
    [
      { do: 'cpu', cpuMs: 3, when: 'idle' },
      { when: 'idle', do: { kind: 'cpu', ms: 3, name: 'work' } },
    ],
    [
      { do: 'scroll', target: 'far', when: 'load' },
      { when: 'load', do: { kind: 'scroll', part: 0 } },
    ],
    [
      { do: 'cpu', cpuMs: 1, when: 'visible', target: 'far' },
      { when: 'visible', target: 0, do: { kind: 'cpu', ms: 1, name: 'work' } },
    ],
    // Only what waits until something is in view has a target.
    [
      { do: 'cpu', cpuMs: 1, when: 'load', target: 'far' },
      { when: 'load', do: { kind: 'cpu', ms: 1, name: 'work' } },
    ],
    [
      { do: 'prefetch', href: '/b.js' },
      { when: 'eval', do: { kind: 'link', hint: { rel: 'prefetch', resource: AT['/b.js'], chosen: true } } },
    ],
    [
      { do: 'stylesheet', href: '/a.css' },
      { when: 'eval', do: { kind: 'link', hint: { rel: 'stylesheet', resource: AT['/a.css'], chosen: false } } },
    ],
  ])('%j', (written, wanted) => {
    expect(follows(written).follow).toEqual([wanted]);
  });

  it('draws once what it needs is there: scripts that ran, other files that came, parts that are drawn', () => {
    const { follow, program } = follows(
      { do: 'render', id: 'inner', needs: ['/b.js', '/data', 'render:app'] },
      { do: 'render', id: 'app' },
    );
    expect(follow.map((a) => a.do)).toEqual([
      { kind: 'render', part: 0 },
      { kind: 'render', part: 1 },
    ]);
    expect(program.parts.map((p) => [p.id, p.needs, p.after, p.drawnBy])).toEqual([
      [
        'inner',
        [
          { resource: AT['/b.js'], state: 'evaluated' },
          { resource: AT['/data'], state: 'arrived' },
        ],
        [1],
        'script',
      ],
      ['app', [], [], 'script'],
    ]);
  });
});

describe('what a visitor of a load case does', () => {
  it('is a click, or a rest with what it did and what the click after it does', () => {
    const fetches = [{ do: 'fetch', href: '/data' }];
    const effect = { kind: 'fetch', resource: AT['/data'] };
    const { steps } = programOf({
      steps: [
        { id: 'tap', atMs: 30, action: 'click', do: fetches, ready: ['/data'], clickDo: fetches },
        { id: 'rest', atMs: 40, action: 'hover', leadMs: 20, clickDo: fetches },
      ],
    });
    expect(steps).toEqual([
      { kind: 'click', id: 'tap', atMs: 30, do: [effect], ready: [AT['/data']] },
      { kind: 'hover', id: 'rest', atMs: 40, do: [], ready: [], leadMs: 20, clickDo: [effect] },
    ]);
  });

  it('comes from another page, which may fetch this document ahead and has no steps of its own', () => {
    const steps = [{ id: 'tap', atMs: 30, action: 'click' }];
    const { from, program } = translated({
      from: { url: '/before', bytes: 70, navigateAtMs: 900, markup: [] },
      steps,
    });
    expect(from).toMatchObject({
      navigateAtMs: 900,
      program: { document: { address: '/before', bytes: 70, serverMs: 0 }, steps: [] },
    });
    expect(from!.program.resources[0]).toMatchObject({
      ...{ address: 'https://app.test/', type: 'fetch', bytes: 9000, serverMs: 120, document: true },
    });
    expect(program.steps).toHaveLength(1);
    expect(translated().from).toBeNull();
  });
});

describe('conditions of a load case', () => {
  const conditions = (more: Fields = {}, item: Fields = {}) =>
    translated({ conditions: { protocol: 'h2', rttMs: 60, downKbps: 8000, upKbps: 4000, ...more }, ...item });

  it('are taken with their defaults', () => {
    expect(conditions().conditions).toEqual({
      link: {
        ...{ id: 'case', name: 'as in the case', protocol: 'h2', tls: '1.3', rttMs: 60, downKbps: 8000, upKbps: 4000 },
        ...{ dnsMs: 0, serverScheduling: 'fifo', queuePackets: 80 },
      },
      device: {
        ...{ id: 'reference', name: 'Reference machine', cpuFactor: 1, browserFactor: 1, backgroundFactor: 1 },
        ...{ viewport: { width: 1280, height: 800 }, touch: false, dataSaver: false },
      },
      cache: 'empty',
    });
    expect(conditions().isRandom).toBe(false);
  });

  it.each<[Fields, Fields]>([
    [{ tls: false }, { tls: 'none' }],
    [{ tls: true }, { tls: '1.3' }],
    [{ dns: { resolverMs: 40 } }, { resolverMs: 40 }],
    [{ serverScheduling: 'urgency' }, { serverScheduling: 'urgency' }],
    [
      { server: 'go', serverScheduling: 'fifo' },
      { serverScheduling: 'urgency', recordBytes: 1400, overHttp3: { serverScheduling: 'shared' } },
    ],
    [{ queuePackets: 12 }, { queuePackets: 12 }],
    // Never less than 64; from there on twice what the link holds, in whole packets of 1,500 bytes.
    [{ rttMs: 10 }, { queuePackets: 64 }],
    [{ rttMs: 61 }, { queuePackets: 82 }],
    [{ lossDownPct: 2 }, { lossPercent: 2, lossSeed: 1 }],
    [
      { lossDownPct: 0.5, lossSeed: 9 },
      { lossPercent: 0.5, lossSeed: 9 },
    ],
  ])('of a link with %j', (written, wanted) => {
    expect(conditions(written).conditions.link).toMatchObject(wanted);
    expect(conditions(written).isRandom).toBe('lossDownPct' in written);
  });

  it('slow the whole machine, or the page’s own thread alone, and visits find what earlier ones left', () => {
    const { device } = conditions({ cpuSlowdown: 2, cpuThrottle: 3 }).conditions;
    expect(device).toMatchObject({ cpuFactor: 6, browserFactor: 3, backgroundFactor: 1 });
    const caches = ['first', 'repeat', 'third'].map((visit) => conditions({}, { visit }).conditions.cache);
    expect(caches).toEqual(['empty', 'returning', 'frequent']);
  });
});

describe('what is wrong in a load case', () => {
  it.each<[Record<string, unknown>, string]>([
    [{ document: { markup: [{ at: 1, tag: 'img', src: '/none' }] } }, 'document.markup[0].src'],
    [{ document: { markup: [{ at: 1, tag: 'link', rel: 'preload' }] } }, 'document.markup[0].href'],
    [{ document: { earlyHints: [{ href: '/none' }] } }, 'document.earlyHints[0].href'],
    [{ document: { flush: [{ upTo: 1, atMs: -1 }] } }, 'document.flush[0].atMs'],
    [{ resources: { '/a.js': { ...RESOURCES['/a.js'], imports: ['/none'] } } }, 'resources["/a.js"].imports[0]'],
    [{ resources: { '/a.js': { ...RESOURCES['/a.js'], ...setsOff({ do: 'fly' }) } } }, 'resources["/a.js"].then[0].do'],
    [
      { resources: { '/a.css': { ...RESOURCES['/a.css'], fontFaces: [{ family: 'Reed', href: '/none' }] } } },
      'resources["/a.css"].fontFaces[0].href',
    ],
    [{ steps: [{ id: 'a', atMs: 1, action: 'click', ready: ['/none'] }] }, 'steps[0].ready[0]'],
    [{ steps: [{ id: 'a', atMs: 1, action: 'hover', leadMs: 1, clickDo: [{}] }] }, 'steps[0].clickDo[0].do'],
    [{ from: { url: '/b', bytes: 1, markup: [] } }, 'from.navigateAtMs'],
  ])('is named by its field (%#)', (broken, at) => {
    const refused = () => translated(broken);
    expect(refused).toThrow(InputError);
    expect(refused).toThrow(expect.objectContaining({ at }));
  });
});
