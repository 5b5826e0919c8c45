import { file as anyFile, page, ROUND } from '../../test-support/programs.ts';
import type { CacheRule, LinkHint, MarkupItem, Resource } from '../load/types.ts';
import type { Conditions } from './conditions.ts';
import { simulate } from './simulate.ts';

/** A page whose script asks for data, which a hint may have fetched before. */
function dataPage(cache: CacheRule, hint: Partial<LinkHint>, conditions: Conditions = ROUND) {
  const link: LinkHint = { rel: 'preload', resource: 1, as: 'fetch', crossorigin: true, chosen: true, ...hint };
  const entry = anyFile('/entry.js', {
    serverMs: 300,
    follow: [{ when: 'eval', do: { kind: 'fetch', resource: 1 } }],
  });
  const data = anyFile('/data', { type: 'fetch', bytes: 20_000, serverMs: 100, cache, purpose: 'content' });
  const markup: MarkupItem[] = [
    { at: 50, tag: 'link', ...link },
    { at: 100, tag: 'script', group: 0, mode: 'module' },
  ];
  const timeline = simulate(page(markup, [entry, data]), conditions);
  return timeline.requests.filter((r) => r.address === '/data');
}

const WRONG: Partial<LinkHint>[] = [{ crossorigin: false }, { as: 'script' }, { rel: 'prefetch' }];

describe('a hint and who asks for its file later', () => {
  it('is one download when kind and mode fit, whatever may be kept', () => {
    for (const cache of ['immutable', 'revalidate', 'no-store'] as const)
      expect(dataPage(cache, {}).map((r) => r.role)).toEqual(['hinted']);
  });

  it.each(WRONG)('is two downloads when they don’t fit and nothing may be kept: %o', (hint) => {
    const [first, second] = dataPage('no-store', hint);
    expect(first.bytes).toBe(second.bytes);
    expect(first.role).toBe(hint.rel === 'prefetch' ? 'in case' : 'wasted');
    expect(second.role).toBe('content');
    expect(second.sent).toBeGreaterThanOrEqual(first.end);
  });

  it.each(WRONG)('costs a question to the server when the file has to be asked about: %o', (hint) => {
    const [first, second] = dataPage('revalidate', hint);
    expect(first.role).toBe('hinted');
    expect(second.bytes).toBe(0);
    expect(second.end - second.sent).toBeGreaterThan(100);
  });

  it.each(WRONG)('is answered from the cache when the file is kept for good: %o', (hint) => {
    expect(dataPage('immutable', hint)).toHaveLength(1);
  });

  it('waits for the first download when that is still on its way', () => {
    const [first, second] = dataPage('no-store', { crossorigin: false, fetchpriority: 'low' });
    const slow = simulate(
      page(
        [
          { at: 50, tag: 'link', rel: 'preload', resource: 1, as: 'fetch', chosen: true },
          { at: 100, tag: 'script', group: 0, mode: 'module' },
        ],
        [
          anyFile('/entry.js', { follow: [{ when: 'eval', do: { kind: 'fetch', resource: 1 } }] }),
          anyFile('/data', { type: 'fetch', serverMs: 3000, cache: 'no-store' }),
        ],
      ),
      ROUND,
    ).requests.filter((r) => r.address === '/data');
    expect(second.sent).toBeGreaterThan(first.end);
    expect(slow[1].discovered).toBeLessThan(slow[0].end);
    expect(slow[1].sent).toBeGreaterThanOrEqual(slow[0].end);
  });
});

describe('conditions of a hint', () => {
  const device = (over: Partial<Conditions['device']>): Conditions => ({
    ...ROUND,
    device: { ...ROUND.device, ...over },
  });
  const hinted = (hint: Partial<LinkHint>, conditions: Conditions) => dataPage('immutable', hint, conditions)[0].hint;

  it('leave it out for visitors who save data', () => {
    expect(hinted({ notForDataSaver: true }, device({ dataSaver: true }))).toBe(false);
    expect(hinted({ notForDataSaver: true }, device({ dataSaver: false }))).toBe(true);
    expect(hinted({}, device({ dataSaver: true }))).toBe(true);
  });

  it('leave it out on other screens', () => {
    const narrow = device({ viewport: { width: 390, height: 800 } });
    expect(hinted({ media: { maxWidth: 600 } }, narrow)).toBe(true);
    expect(hinted({ media: { minWidth: 601 } }, narrow)).toBe(false);
  });
});

describe('speculation rules on a page that nobody leaves', () => {
  const next: Partial<Resource> = { type: 'fetch', cache: 'no-store', document: true, purpose: 'content' };
  const withRule = (dataSaver: boolean) =>
    simulate(
      page(
        [
          {
            at: 50,
            tag: 'rules',
            do: [
              {
                kind: 'rule',
                does: 'prepare',
                address: '/next',
                instead: [
                  { kind: 'fetch', resource: 0, ahead: true },
                  { kind: 'link', hint: { rel: 'prefetch', resource: 1, chosen: false } },
                ],
              },
            ],
          },
        ],
        [anyFile('/next', next), anyFile('/next.js')],
      ),
      { ...ROUND, device: { ...ROUND.device, dataSaver } },
    ).requests.filter((r) => r.address.startsWith('/next'));

  it('fetch the document and its files in case', () => {
    expect(withRule(false).map((r) => r.role)).toEqual(['in case', 'in case']);
  });

  it('do nothing where the visitor saves data', () => {
    expect(withRule(true)).toEqual([]);
  });
});
