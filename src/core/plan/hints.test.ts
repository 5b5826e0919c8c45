import { part, route, sketch } from '../../test-support/snapshots.ts';
import type { ContentItem, Route } from '../snapshot/route-types.ts';
import type { Hint, HintTarget } from '../vocabulary/hints.ts';
import { isDocumentHint } from '../vocabulary/hints.ts';
import { effectivePlan } from './effective.ts';
import { HINT } from './hint-check.ts';
import { parseHint } from './hint-notation.ts';
import { hintSubject, hintTrouble, hintWords } from './hints.ts';
import { BASELINE } from './types.ts';

const picture = { id: 'pic', address: 'https://cdn.example/a/pic.jpg', foundIn: 'document' } as ContentItem;
const late = { id: 'late', address: '/late.jpg', foundIn: { module: 'home' } } as ContentItem;
const app = sketch(
  { main: { imports: ['~home'] }, home: { imports: ['dialog', '~chart'] }, dialog: {}, chart: {} },
  {
    routes: [route('/', 'home', { content: [picture, late], parts: [part('dialog', 'dialog')] }), route('/b', 'home')],
  },
);
const chart: HintTarget = { kind: 'split point', module: 'chart' };
const hint = (more: Partial<Hint> = {}): Hint => ({
  kind: 'prefetch',
  place: 'markup',
  target: chart,
  routes: [],
  ...more,
});

describe('written hints', () => {
  it.each<[string, Partial<Hint>]>([
    ['prefetch:chart', {}],
    ['modulepreload:chart@early', { kind: 'modulepreload', place: 'early' }],
    ['prefetch:chart@idle', { place: 'script', on: { on: 'idle' } }],
    ['prefetch:chart@after:2000', { place: 'script', on: { on: 'after', ms: 2000 } }],
    ['modulepreload:chart@approach', { kind: 'modulepreload', place: 'script', on: { on: 'approach' } }],
    [
      'preload:/late.jpg@markup,high,max=600',
      {
        kind: 'preload',
        target: { kind: 'asset', address: '/late.jpg' },
        priority: 'high',
        media: { maxWidth: 600 },
      },
    ],
    [
      'preload:/late.jpg@header,as=fetch,plain',
      {
        kind: 'preload',
        place: 'header',
        target: { kind: 'asset', address: '/late.jpg' },
        as: 'fetch',
        crossorigin: false,
      },
    ],
    [
      'prefetch document:/b@approach',
      {
        kind: 'prefetch document',
        target: { kind: 'route', pattern: '/b' },
        on: { on: 'approach' },
      },
    ],
    ['prefetch:chart@markup,no-data-saver', { notForDataSaver: true }],
    [
      'preconnect:https://cdn.example',
      { kind: 'preconnect', target: { kind: 'origin', origin: 'https://cdn.example' } },
    ],
    [
      `fetch priority:${picture.address}@markup,high`,
      {
        kind: 'fetch priority',
        target: { kind: 'asset', address: picture.address },
        priority: 'high',
      },
    ],
  ])('%s', (text, meant) => {
    expect(parseHint(app, text)).toEqual(hint(meant));
  });

  it.each([
    ['warm:chart', 'Not a hint'],
    ['prefetch:nowhere', 'Hint without a target'],
    ['prefetch:chart@attic', 'Unknown place'],
    ['prefetch:chart@script', 'Unknown place'],
    ['prefetch:chart@markup,loud', 'Unknown option'],
    ['prefetch:chart@action', 'A hint that can’t be'],
    ['preload:chart@markup,min=900,max=600', 'A hint that can’t be'],
    ['preload:/late.jpg@markup,as=film', 'as'],
    ['prefetch document:/b@idle', 'A hint that can’t be'],
    [`fetch priority:${picture.address}`, 'A hint that can’t be'],
  ])('%s is refused, saying why', (text, words) => {
    expect(() => parseHint(app, text)).toThrow(words);
  });
});

describe('a hint', () => {
  it.each<[Partial<Hint>, string]>([
    [{}, 'prefetch chart in the markup'],
    [{ place: 'script', on: { on: 'idle' } }, 'prefetch chart by script, when idle'],
    [
      { place: 'script', on: { on: 'approach' }, notForDataSaver: true },
      'prefetch chart on hover or focus, not for data savers',
    ],
    [{ kind: 'prepare document', target: { kind: 'route', pattern: '/b' } }, 'prepare document /b at once'],
    [
      { kind: 'fetch priority', target: { kind: 'asset', address: picture.address }, priority: 'high' },
      'high fetch priority for a/pic.jpg',
    ],
    [
      { kind: 'preload', priority: 'low', media: { minWidth: 700 }, place: 'header' },
      'preload chart in a header, low priority, from 700 px wide',
    ],
    [
      { kind: 'preconnect', target: { kind: 'origin', origin: 'https://x.example' }, place: 'early' },
      'preconnect x.example as early hint',
    ],
  ])('in words: %#', (more, words) => {
    expect(hintWords(hint(more))).toBe(words);
  });

  it('can change its priority and conditions in place, but not its kind, aim, place or moment', () => {
    const subject = hintSubject(hint());
    expect(hintSubject(hint({ priority: 'low', notForDataSaver: true, media: { maxWidth: 9 } }))).toBe(subject);
    for (const other of [{ place: 'early' }, { place: 'script', on: { on: 'idle' } }, { routes: ['/'] }] as const)
      expect(hintSubject(hint(other as Partial<Hint>))).not.toBe(subject);
    expect(isDocumentHint('prefetch document')).toBe(true);
    expect(isDocumentHint('prefetch')).toBe(false);
  });

  it('keeps all its fields through a file, and names the field that can’t be', () => {
    const full = hint({
      kind: 'preload',
      place: 'script',
      on: { on: 'after', ms: 5 },
      priority: 'low',
      as: 'fetch',
      crossorigin: false,
      media: { minWidth: 1, maxWidth: 2 },
      notForDataSaver: true,
      routes: ['/'],
    });
    expect(HINT.check(JSON.parse(JSON.stringify(full)), 'hint')).toEqual(full);
    expect(() => HINT.check({ ...full, place: 'markup' }, 'hint')).toThrow(expect.objectContaining({ at: 'hint.on' }));
    expect(() => HINT.check({ ...full, on: undefined }, 'hint')).toThrow(expect.objectContaining({ at: 'hint.on' }));
  });
});

describe('a hint that contradicts itself is refused by the field', () => {
  const script = { place: 'script', on: { on: 'idle' } } as const;
  const ofRoute = { kind: 'prefetch document', target: { kind: 'route', pattern: '/b' } } as const;
  const image = { kind: 'fetch priority', target: { kind: 'asset', address: late.address } } as const;

  it.each<[Partial<Hint>, string]>([
    [{ ...ofRoute, place: 'header' }, 'place'],
    [{ ...ofRoute, on: { on: 'idle' } }, 'on'],
    [{ ...image, place: 'header', priority: 'high' }, 'place'],
    [image, 'priority'],
    [{ place: 'script' }, 'on'],
    [{ place: 'script', on: { on: 'media', media: { maxWidth: 5 } } } as Partial<Hint>, 'on'],
    [{ place: 'header', on: { on: 'idle' } }, 'on'],
    [{ media: { minWidth: 701, maxWidth: 700 } }, 'media'],
  ])('%#: %s', (more, field) => {
    const told = () => HINT.check(JSON.parse(JSON.stringify(hint(more))), 'hint');
    expect(told).toThrow(expect.objectContaining({ at: expect.stringContaining(`hint.${field}`) }));
  });

  it.each<[Partial<Hint>]>([
    [{ media: { minWidth: 700, maxWidth: 700 } }],
    [{ media: { minWidth: 0 } }],
    [{ media: { maxWidth: 0 } }],
    [script],
    [{ ...ofRoute, on: { on: 'approach' } }],
    [{ ...image, priority: 'low' }],
  ])('and taken otherwise (%#)', (more) => {
    const given = JSON.parse(JSON.stringify(hint(more)));
    expect(HINT.check(given, 'hint')).toEqual(given);
  });
});

describe('a hint that can do nothing is kept and named', () => {
  const reasonOf = (more: Partial<Hint>, ...before: 'join'[]) => {
    const joins = before.map(() => ({ kind: 'join' as const, import: 'home::chart' }));
    const plan = { ...BASELINE, decisions: [{ kind: 'hint' as const, hint: hint(more) }, ...joins] };
    const { hints, stale } = effectivePlan(app, plan);
    expect(hints).toHaveLength(stale.length === 0 ? 1 : 0);
    return stale[0]?.reason ?? null;
  };

  it.each<[Partial<Hint>, string]>([
    [{ target: { kind: 'split point', module: 'gone' } }, 'no module gone'],
    [{ target: { kind: 'split point', module: 'dialog' } }, 'dialog is no split point any more'],
    [{ target: { kind: 'route', pattern: '/gone' } }, 'no route /gone'],
    [{ routes: ['/gone'] }, 'no route /gone'],
    [{ target: { kind: 'asset', address: '/gone.jpg' } }, 'nothing in this snapshot asks for /gone.jpg'],
    [{ kind: 'preconnect' }, 'preconnect takes origin, not split point'],
    [
      { kind: 'fetch priority', priority: 'high', target: { kind: 'asset', address: late.address } },
      'no document of this snapshot has a tag for /late.jpg',
    ],
  ])('%#', (more, words) => {
    expect(reasonOf(more)).toContain(words);
  });

  it('also when a later decision takes its split point away', () => {
    expect(reasonOf({})).toBeNull();
    expect(reasonOf({}, 'join')).toContain('chart is no split point any more');
  });

  it.each([
    ['/api/tides/:id', /:id is only known once/],
    ['/api/:haven/tides', /:haven is only known once/],
    ['/files/*', /only known once/],
    ['/graphql#Tides', /sent as a text/],
    ['https://api.example:8080/tides?at=:now', null],
    ['/a/b:c.jpg', null],
  ])('never aims at what nobody can write before: %s', (address, why) => {
    const data = { id: 'tides', address, bytes: 1, serverMs: 1, module: 'home' } as Route['data'][number];
    const asked = sketch(
      { main: { imports: ['~home'] }, home: {} },
      { routes: [route('/', 'home', { data: [data] })] },
    );
    const trouble = hintTrouble(
      asked,
      hint({ kind: 'preload', target: { kind: 'asset', address } }),
      new Uint8Array(1),
    );
    if (why === null) expect(trouble).toBeNull();
    else expect(trouble).toMatch(why);
  });

  it('aims at what the app asks for: contents, data and scripts, and nothing else', () => {
    const call = { id: 'd', address: '/api/d', bytes: 10, serverMs: 1, module: 'home' };
    const asked = sketch(
      { main: { imports: ['home'] }, home: {} },
      { routes: [route('/', 'home', { content: [late], data: [call] })] },
    );
    const trouble = (address: string) =>
      hintTrouble(asked, hint({ kind: 'preload', target: { kind: 'asset', address } }), new Uint8Array(1));
    expect([trouble('/late.jpg'), trouble('/api/d')]).toEqual([null, null]);
    expect(trouble('/nothing.jpg')).toBe('nothing in this snapshot asks for /nothing.jpg');
  });
});
