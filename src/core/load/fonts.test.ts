import { route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { compileLoad } from './compile.ts';

const font = (id: string, declaredBy: string, display: 'auto' | 'swap' = 'auto') => ({
  ...{ id, address: `/${id}.woff2`, bytes: 24_000, serverMs: 5, declaredBy, display },
});
const app = sketch(
  {
    main: { imports: ['home', 'base'] },
    home: {},
    base: { kind: 'style', bytes: 9000 },
    other: { kind: 'style', bytes: 9000 },
  },
  {
    routes: [
      route('/', 'home', { rendering: 'server', fonts: [font('text', 'base'), font('lost', 'other')] }),
      route('/swap', 'home', { rendering: 'server', fonts: [font('text', 'base', 'swap')] }),
      route('/far', 'home', {
        rendering: 'server',
        document: {
          ...{ bytes: 20_000, serverMs: 40 },
          redirects: [{ origin: 'https://go.example', serverMs: 30 }],
          flushes: [
            { upTo: 4000, atMs: 0 },
            { upTo: 20_000, atMs: 700 },
          ],
        },
      }),
    ],
  },
);
const preload: Plan = {
  ...BASELINE,
  decisions: [
    {
      kind: 'hint',
      hint: { kind: 'preload', place: 'markup', routes: ['/'], target: { kind: 'asset', address: '/text.woff2' } },
    },
  ],
};

describe('fonts of a route', () => {
  it('are those whose sheets the landing loads, on its shell and page', () => {
    const { resources, parts } = compileLoad(planned(app, BASELINE), '/');
    expect(resources.filter((r) => r.type === 'font').map((r) => r.name)).toEqual(['text']);
    const [page] = parts.filter((p) => p.id === 'page');
    expect(page.fonts).toMatchObject([{ display: 'auto' }]);
    expect(resources[page.fonts![0].declaredBy].type).toBe('style');
  });

  it('hold back the text but not the first content; fetched ahead they come with the styles', () => {
    const { timeline, reading } = predict(app, BASELINE, '/', DEFAULT_CONDITIONS);
    const shown = timeline.reveals.find((r) => r.state === 'shown')!.at;
    expect(shown).toBeGreaterThan(reading.milestones.firstContent + 100);
    const swapped = predict(app, BASELINE, '/swap', DEFAULT_CONDITIONS).timeline;
    expect(swapped.reveals.some((r) => r.state === 'in font')).toBe(true);
    const ahead = predict(app, preload, '/', DEFAULT_CONDITIONS).timeline;
    expect(ahead.reveals.find((r) => r.state === 'shown')!.at).toBeLessThan(shown - 50);
    expect(ahead.requests.filter((r) => r.type === 'font')).toHaveLength(1);
  });
});

describe('the document of a route', () => {
  it('may come by a redirect, and in pieces', () => {
    const plain = predict(app, BASELINE, '/swap', DEFAULT_CONDITIONS).timeline.requests[0];
    const far = predict(app, BASELINE, '/far', DEFAULT_CONDITIONS).timeline.requests[0];
    // Another origin is connected to first, which takes two round trips and its answer one more.
    expect(far.sent - plain.sent).toBeGreaterThan(3 * DEFAULT_CONDITIONS.link.rttMs);
    expect(far.end - far.firstByte).toBeGreaterThan(700);
  });
});
