import { REFERENCE_COSTS } from '../sim/conditions.ts';
import { parseLoadCase } from './load-case.ts';
import { type CasePrediction, playCase } from './play-case.ts';

type Fields = Record<string, unknown>;

const CONDITIONS = { protocol: 'h2', tls: true, rttMs: 100, downKbps: 3000, upKbps: 1000 };

/** Predicts a small page: a style, a deferred script and text in a font of its own. */
function play({ conditions, document, resources, ...more }: Record<string, Fields | string> = {}): CasePrediction {
  return playCase(
    parseLoadCase({
      id: 'small',
      conditions: { ...CONDITIONS, ...(conditions as Fields) },
      document: {
        ...{ url: '/', bytes: 7000, serverMs: 50 },
        markup: [
          { at: 150, tag: 'link', rel: 'stylesheet', href: '/a.css' },
          { at: 300, tag: 'script', src: '/a.js', mode: 'defer' },
          { at: 2000, tag: 'text', id: 'lead', font: 'Reed' },
        ],
        ...(document as Fields),
      },
      resources: {
        '/a.css': {
          ...{ type: 'style', bytes: 12_000, serverMs: 5 },
          fontFaces: [{ family: 'Reed', href: '/a.woff2', display: 'swap' }],
        },
        '/a.js': { type: 'script', bytes: 60_000, serverMs: 5, cpuMs: 20 },
        '/a.woff2': { type: 'font', bytes: 24_000, serverMs: 5 },
        ...(resources as Fields),
      },
      ...more,
    }),
  );
}

describe('what is predicted of a load case', () => {
  const plain = play();

  it('tells when text shows, and when it is in its own font', () => {
    expect(plain.textPaint.lead).toBeCloseTo(plain.firstContentfulPaint!, 0);
    // Once it is there a frame is waited for, and the text is laid out again.
    const { frameWait, fontSwap } = REFERENCE_COSTS;
    expect(plain.textInFont.lead).toBeCloseTo(plain.resources['/a.woff2'].responseEnd + frameWait + fontSwap, 6);
  });

  it('changes to a font only what was laid out without it, and what has one', () => {
    const font = (display: string, bytes = 24_000) =>
      play({
        resources: {
          '/a.css': {
            ...{ type: 'style', bytes: 12_000, serverMs: 5 },
            fontFaces: [{ family: 'Reed', href: '/a.woff2', display }],
          },
          '/a.woff2': { type: 'font', bytes, serverMs: 5 },
        },
      }).textInFont;
    expect(Object.keys(font('swap'))).toEqual(['lead']);
    expect(font('optional')).toEqual({});
    const early = { linkHeader: [{ href: '/a.woff2', as: 'font', crossorigin: true }] };
    expect(
      play({ document: early, resources: { '/a.woff2': { type: 'font', bytes: 10, serverMs: 0 } } }).textInFont,
    ).toEqual({});
    const plainText = { markup: [{ at: 2000, tag: 'text', id: 'lead' }] };
    expect(play({ document: plainText }).textInFont).toEqual({});
  });

  it('counts redirects before the document from the first of them', () => {
    const own = play({ document: { redirects: [{ url: '/go', status: 302, serverMs: 30 }] } });
    // A round trip, its server's time, and what following it costs.
    expect(own.firstContentfulPaint! - plain.firstContentfulPaint!).toBeGreaterThan(130);
    expect(own.firstContentfulPaint! - plain.firstContentfulPaint!).toBeLessThan(165);
    const far = play({ document: { redirects: [{ url: 'https://go.example/', status: 302, serverMs: 30 }] } });
    expect(far.load! - own.load!).toBeGreaterThan(190);
  });

  it('pays for names where they are looked up', () => {
    const named = play({ conditions: { dns: { resolverMs: 40 } } });
    expect(named.firstContentfulPaint! - plain.firstContentfulPaint!).toBeCloseTo(140, -1);
  });

  it('pays for real code by its size as written, less on a third visit and more where the page’s thread is slow', () => {
    const code = {
      '/a.js': { type: 'script', code: 'kit', encoding: 'br', bytes: 60_000, decodedBytes: 900_000, serverMs: 5 },
    };
    const spent = (more: Record<string, Fields | string>) => {
      const { evalEnd, resources } = play({ resources: code, ...more });
      return evalEnd['/a.js'] - resources['/a.js'].responseEnd;
    };
    const first = spent({});
    expect(first).toBeGreaterThan(60);
    expect(spent({ conditions: { cpuThrottle: 4 } })).toBeGreaterThan(2.5 * first);
    const kept = play({ resources: code, visit: 'third' });
    expect(kept.load!).toBeLessThan(play({ resources: code, visit: 'repeat' }).load! - 30);
  });

  it('begins with another page where it comes from one: no connecting, what is kept, and what was fetched ahead', () => {
    const from = (rules: object[]) => ({
      from: {
        ...{ url: '/', bytes: 6000, serverMs: 50, navigateAtMs: 3000 },
        markup: [{ at: 150, tag: 'link', rel: 'stylesheet', href: '/a.css' }, ...rules, { at: 2000, tag: 'text' }],
      },
      document: { url: '/next', serverMs: 400 },
    });
    const alone = play({ document: { url: '/next', serverMs: 400 } });
    const linked = play(from([]));
    expect(linked.firstContentfulPaint!).toBeLessThan(alone.firstContentfulPaint! - 250);
    const rules = { prefetch: [{ source: 'list', urls: ['/next'], eagerness: 'immediate' }] };
    const ahead = play(from([{ at: 400, tag: 'script', mode: 'speculationrules', rules }]));
    expect(ahead.firstContentfulPaint!).toBeLessThan(150);
    expect(linked.firstContentfulPaint!).toBeGreaterThan(500);
  });

  it('is a distribution where packets are lost at random', () => {
    const lossy = play({ conditions: { lossDownPct: 2, lossSeed: 7 } });
    expect(lossy.distribution!.load.p90).toBeGreaterThan(lossy.distribution!.load.p50);
    expect(lossy.load).toBe(lossy.distribution!.load.p50);
    expect(Object.keys(lossy.distribution!)).toEqual(['load', 'firstContentfulPaint', 'evalEnd /a.js']);
    expect(lossy.load!).toBeGreaterThan(plain.load!);
    expect(plain.distribution).toBeUndefined();
  });

  it.each([
    [{ conditions: { dns: {} } }, 'conditions.dns.resolverMs'],
    [{ conditions: { server: 'far' } }, 'conditions.server must be one of node, go'],
    [{ document: { redirects: [{ url: '/go', serverMs: 'x' }] } }, 'document.redirects[0].serverMs'],
    [{ document: { markup: [{ at: 1, tag: 'text', font: 'None' }] } }, 'No style sheet of the case declares None'],
    [{ visit: 'tenth' }, 'visit must be one of first, repeat, third'],
  ] as const)('is refused by the field (%#)', (more, words) => {
    expect(() => play(more as Record<string, Fields | string>)).toThrow(words);
  });
});
