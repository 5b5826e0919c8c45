import { file as anyFile, page, ROUND } from '../../test-support/programs.ts';
import type { MarkupItem, Resource } from '../load/types.ts';
import { type Conditions, REFERENCE_COSTS } from './conditions.ts';
import { withAttribute } from './pieces.ts';
import { simulate } from './simulate.ts';

const conditions = ROUND;

const file = (address: string, more: Partial<Resource> = {}) =>
  anyFile(address, { bytes: 4000, serverMs: 100, ...more });

function load(markup: MarkupItem[], resources: Resource[], over: Partial<Conditions> = {}) {
  const timeline = simulate(page(markup, resources), { ...conditions, ...over });
  return { timeline, of: (address: string) => timeline.requests.find((r) => r.address === address)! };
}

const script = (
  at: number,
  group: number,
  mode: 'blocking' | 'async' | 'module' = 'blocking',
  more = {},
): MarkupItem => ({ at, tag: 'script', group, mode, ...more });
const image = (at: number, resource: number, more = {}): MarkupItem => ({
  at,
  tag: 'img',
  resource,
  lazy: false,
  inView: true,
  ...more,
});

describe('requests while the head still blocks', () => {
  it('of low urgency wait while two others are in flight', () => {
    const { of, timeline } = load(
      [script(100, 0), script(150, 1), script(200, 2, 'async')],
      [file('/a'), file('/b', { serverMs: 300 }), file('/low')],
    );
    expect(of('/low').released).toBeCloseTo(of('/a').end, 5);
    expect(of('/low').released).toBeLessThan(timeline.moments.bodyInserted);
  });

  it('of medium urgency wait while two of their kind are in flight', () => {
    const images = [1, 2, 3].map((n) => file(`/${n}.png`, { type: 'image', purpose: 'content' }));
    const { of } = load(
      [script(100, 0), image(200, 1), image(250, 2), image(300, 3)],
      [file('/block', { serverMs: 900 }), ...images],
    );
    expect(of('/2.png').released - of('/1.png').released).toBeCloseTo(REFERENCE_COSTS.burstStep, 5);
    expect(of('/3.png').released).toBeCloseTo(Math.min(of('/1.png').end, of('/2.png').end), 5);
  });

  it('of low urgency leave before all others when they are found first, so that a server in order of arrival answers them first', () => {
    const picture = { type: 'image' as const, purpose: 'content' as const, bytes: 80_000 };
    const preload = (at: number) =>
      ({ at, tag: 'link', rel: 'preload', as: 'image', resource: 0, chosen: true }) as const;
    const files = [file('/hero.png', picture), file('/a', { bytes: 60_000 })];
    const first = load([preload(100), script(150, 1)], files);
    const last = load([script(100, 1), preload(150)], files);
    expect(first.of('/hero.png').queued).toBeLessThan(first.of('/a').queued);
    expect(first.of('/hero.png').end).toBeLessThan(first.of('/a').end);
    expect(last.of('/a').end).toBeLessThan(first.of('/a').end - 50);
    expect(last.of('/hero.png').end).toBeGreaterThan(last.of('/a').end);
  });

  it('go at once when they are urgent, or are made so', () => {
    const files = [file('/a', { serverMs: 500 }), file('/b', { serverMs: 500 }), file('/c'), file('/d')];
    const { of } = load(
      [script(100, 0), script(150, 1), script(200, 2, 'module'), script(250, 3, 'async', { fetchpriority: 'high' })],
      files,
    );
    for (const address of ['/c', '/d']) expect(of(address).released - of(address).queued).toBe(0);
  });

  it('are let go when the body begins', () => {
    const files = [file('/x', { serverMs: 2000 }), file('/y', { serverMs: 2000 }), file('/z')];
    const { of, timeline } = load([script(100, 0, 'async'), script(150, 1, 'async'), script(200, 2, 'async')], files);
    expect(of('/z').released).toBeCloseTo(timeline.moments.bodyInserted, 5);
  });
});

describe('priorities', () => {
  it('are those of the type and place, changed by the attribute', () => {
    const { of } = load(
      [
        { at: 50, tag: 'link', rel: 'stylesheet', resource: 0, chosen: false },
        script(100, 1),
        script(150, 2, 'async'),
        { at: 200, tag: 'link', rel: 'prefetch', resource: 3, chosen: true },
        image(300, 4),
        image(350, 5, { fetchpriority: 'high' }),
      ],
      [
        file('/s', { type: 'style' }),
        file('/b'),
        file('/a'),
        file('/p'),
        file('/i', { type: 'image' }),
        file('/h', { type: 'image' }),
      ],
    );
    expect(['/s', '/b', '/a', '/p', '/i', '/h'].map((a) => of(a).priority)).toEqual([0, 1, 3, 4, 2, 1]);
    expect(withAttribute(1, 'low')).toBe(3);
    expect(withAttribute(4, 'low')).toBe(4);
    expect(withAttribute(0, 'high')).toBe(0);
    expect(withAttribute(2, 'auto')).toBe(2);
  });

  it('make the sixth image found ahead less urgent than the first five', () => {
    const images = [0, 1, 2, 3, 4, 5, 6].map((n) => file(`/${n}`, { type: 'image' }));
    const { of } = load(
      images.map((_, i) => image(500 + i, i)),
      images,
    );
    expect(images.map((r) => of(r.address).priority)).toEqual([2, 2, 2, 2, 2, 3, 3]);
  });

  it('leave lazy images below the screen alone', () => {
    const { timeline } = load([image(500, 0, { lazy: true, inView: false })], [file('/far', { type: 'image' })]);
    expect(timeline.requests).toHaveLength(1);
  });
});

describe('a file that is asked for twice', () => {
  it('travels once', () => {
    const { timeline, of } = load(
      [
        { at: 100, tag: 'link', rel: 'preload', resource: 0, as: 'script', chosen: true },
        script(200, 0, 'async'),
        script(300, 0, 'module'),
      ],
      [file('/once')],
    );
    expect(timeline.requests.filter((r) => r.address === '/once')).toHaveLength(1);
    expect(timeline.tasks.filter((t) => t.name === '/once')).toHaveLength(1);
    expect(of('/once').role).toBe('hinted');
  });
});

describe('connections', () => {
  it('to another origin are greeted only when needed, unless a preconnect went ahead', () => {
    const far = 'https://far.example';
    const files = [
      file('/entry', { follow: [{ when: 'eval', do: { kind: 'import', group: 1 } }] }),
      file(`${far}/x`, { origin: far }),
    ];
    const plain = load([script(200, 0, 'module')], files).of(`${far}/x`);
    const warm = (crossorigin: boolean) =>
      load(
        [
          { at: 100, tag: 'link', rel: 'preconnect', resource: -1, origin: far, crossorigin, chosen: true },
          script(200, 0, 'module'),
        ],
        files,
      ).of(`${far}/x`);
    expect(plain.sent - plain.released).toBeGreaterThan(200);
    expect(warm(true).sent - warm(true).released).toBeLessThan(60);
    expect(warm(false).sent - warm(false).released).toBeGreaterThan(200);
  });

  it('over HTTP/1.1 are six at most, and carry the waiting requests when they are free', () => {
    const files = Array.from({ length: 14 }, (_, n) => file(`/${n}`));
    const { timeline } = load(
      files.map((_, i) => script(100 + i, i, 'module')),
      files,
      { link: { ...conditions.link, protocol: 'h1' } },
    );
    const used = new Set(timeline.requests.map((r) => r.connection));
    expect(used.size).toBeLessThanOrEqual(6);
    for (const connection of used) {
      const turns = timeline.requests.filter((r) => r.connection === connection).sort((a, b) => a.sent - b.sent);
      for (let i = 1; i < turns.length; i++) expect(turns[i].sent).toBeGreaterThanOrEqual(turns[i - 1].end - 1e-6);
    }
  });
});
