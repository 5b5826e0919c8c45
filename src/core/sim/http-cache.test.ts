import { file } from '../../test-support/programs.ts';
import { CACHE_STATES } from '../vocabulary/cache-states.ts';
import { HttpCache } from './http-cache.ts';

const own = file('/app.js', { changes: true, chunk: 0 });
const vendor = file('/vendor.js', { chunk: 1 });
const picture = file('/pic.jpg', { type: 'image' });
const asked = file('/logo.svg', { type: 'image', cache: 'revalidate' });
const answer = file('/api', { type: 'fetch', cache: 'no-store' });
const all = [own, vendor, picture, asked, answer];

it.each([
  ['empty', ['nothing', 'nothing', 'nothing', 'nothing', 'nothing']],
  ['returning', ['fresh', 'fresh', 'fresh', 'stale', 'nothing']],
  ['stale', ['stale', 'stale', 'stale', 'stale', 'nothing']],
  ['deployed', ['nothing', 'fresh', 'fresh', 'stale', 'nothing']],
  ['rebuilt', ['nothing', 'nothing', 'fresh', 'stale', 'nothing']],
] as const)('what an earlier visit has left: %s', (cache, states) => {
  const kept = new HttpCache(cache);
  expect(all.map((item) => kept.of(item))).toEqual(states);
  expect(CACHE_STATES).toContain(cache);
});

it('keeps what pages of this visit fetched, but answers that may not be kept', () => {
  const kept = new HttpCache('empty');
  for (const item of all) kept.add(item);
  expect(all.map((item) => kept.of(item))).toEqual(['fresh', 'fresh', 'fresh', 'stale', 'nothing']);
});

it('forgets at a deploy what changed, until that is fetched again', () => {
  const kept = new HttpCache('returning');
  kept.add(own);
  kept.deploy(all);
  expect(all.map((item) => kept.of(item))).toEqual(['nothing', 'fresh', 'fresh', 'stale', 'nothing']);
  kept.add(own);
  expect(kept.of(own)).toBe('fresh');
});
