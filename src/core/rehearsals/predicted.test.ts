import { ROUND } from '../../test-support/programs.ts';
import { part as namedPart, route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { predictedOf } from './predicted.ts';

describe('what is predicted beside a rehearsal', () => {
  const app = sketch(
    {
      'main.js': { imports: ['page.js', '~far.js'] },
      'page.js': { imports: ['~dialog.js'] },
      'dialog.js': { bytes: 9000 },
      'far.js': { bytes: 9000 },
    },
    {
      routes: [
        route('/', 'page.js', {
          parts: [namedPart('dialog', 'dialog.js', { place: 'action', action: 'Ask' })],
          links: ['/far'],
        }),
        route('/far', 'far.js'),
      ],
    },
  );
  const of = (...acts: string[]) => predictedOf(app, BASELINE, { pattern: '/', acts }, ROUND);

  it('is the landing, and the wait of who acts once it has come to rest', () => {
    const { reading, timeline } = predict(app, BASELINE, '/', ROUND);
    expect(of()).toEqual({ milestones: reading.milestones, timeline });
    const [wait] = of('dialog').waits!;
    const { requests } = timeline;
    expect(wait).toBeGreaterThan(ROUND.link.rttMs);
    expect(requests.some((r) => r.name.includes('dialog'))).toBe(false);
    const slower = { ...ROUND, link: { ...ROUND.link, rttMs: ROUND.link.rttMs + 400 } };
    expect(predictedOf(app, BASELINE, { pattern: '/', acts: ['dialog'] }, slower).waits![0] - wait).toBeCloseTo(400, 0);
  });

  it('is a wait for each of several acts, and code that an earlier one fetched is there', () => {
    const { waits } = of('/far', '/', 'dialog', '/far');
    expect(waits).toHaveLength(4);
    const [first, , opened, again] = waits!;
    expect(again).toBeLessThan(first / 4);
    expect(opened).toBeCloseTo(of('dialog').waits![0], 0);
  });

  it('is the wait of who moves to another route, where that is named', () => {
    const [wait] = of('/far').waits!;
    expect(wait).toBeGreaterThan(ROUND.link.rttMs);
    expect(wait).toBeLessThan(10 * ROUND.link.rttMs);
  });
});
