import { file, page, ROUND, screenPart } from '../../test-support/programs.ts';
import { lossSpread } from './loss-spread.ts';

const program = page(
  [
    { at: 200, tag: 'script', group: 0, mode: 'module' },
    { at: 1500, tag: 'text', part: 0 },
  ],
  [file('/a.js', { bytes: 200_000, purpose: 'start' })],
  {
    parts: [
      screenPart('lead', { drawnBy: 'document', interactive: true, needs: [{ resource: 0, state: 'evaluated' }] }),
    ],
  },
);
const losing = (lossPercent: number) => ({ ...ROUND, link: { ...ROUND.link, lossPercent } });

describe('a landing on a link that loses packets', () => {
  it('is spread: the same each time, the worst tenth apart from the middle, and more with more loss', () => {
    const one = lossSpread(program, losing(1))!;
    const three = lossSpread(program, losing(3))!;
    expect(lossSpread(program, losing(1))).toEqual(one);
    expect(one.p90.interactive).toBeGreaterThan(one.median.interactive);
    expect(three.median.interactive).toBeGreaterThan(one.median.interactive);
    expect(three.p90.interactive).toBeGreaterThan(one.p90.interactive);
  });

  it('is not where nothing is lost', () => {
    expect(lossSpread(program, losing(0))).toBeNull();
    expect(lossSpread(program, ROUND)).toBeNull();
  });
});
