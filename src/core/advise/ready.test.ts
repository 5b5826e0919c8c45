import { readyFindings, savedOn } from './ready.ts';
import type { Finding } from './types.ts';

const finding = (id: string, more: Partial<Finding> = {}): Finding => ({
  ...{ id, kind: 'part in the start', what: id, why: '', evidence: [], routes: ['/'], cautions: [], together: null },
  remedy: { words: `detach ${id}`, decisions: [] },
  effect: {
    ...{ cost: -10, waste: 0, seen: { moves: 0, flashes: 0, silent: 0 }, perVisit: 0, waits: [] },
    routes: [],
  },
  basis: { on: 'the plan' },
  ...more,
});
const route = (pattern: string, interactive: number) => ({
  ...{ pattern, share: 1, firstContent: 0, interactive, startBytes: 0, otherScripts: 0, alsoFetched: 0, hops: 0 },
});

describe('findings that can be taken as they are', () => {
  it('are those for the plan as it is, without anything to be done by hand, that save time', () => {
    const effect = finding('').effect;
    const found = readyFindings([
      finding('first'),
      finding('by hand', { cautions: ['it is read at once'] }),
      finding('seen', { seen: true }),
      finding('with others', { basis: { on: 'those above' } }),
      finding('elsewhere', { basis: { on: 'a link', link: 'slow', saves: 9 } }),
      finding('nothing', { effect: { ...effect, cost: 0 } }),
      finding('second'),
    ]);
    expect(found.map((f) => f.id)).toEqual(['first', 'second']);
  });

  it('say what they save on one landing, nothing where that is slower or not touched', () => {
    const with_ = (...routes: ReturnType<typeof route>[]) =>
      finding('a', { effect: { ...finding('').effect, routes } });
    expect(savedOn(with_(route('/b', -300), route('/', -120)), '/')).toBe(120);
    expect(savedOn(with_(route('/', 40)), '/')).toBe(0);
    expect(savedOn(with_(route('/b', -300)), '/')).toBe(0);
    expect(savedOn(with_(route('/', Number.NaN)), '/')).toBe(0);
  });
});
