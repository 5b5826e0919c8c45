import { ROUND } from '../../test-support/programs.ts';
import { part as namedPart, route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { movedTo } from './acts.ts';
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
        route('/', 'page.js', { parts: [namedPart('dialog', 'dialog.js', { place: 'action' })], links: ['/far'] }),
        route('/far', 'far.js'),
      ],
    },
  );
  const of = (act?: string) =>
    predictedOf(app, BASELINE, { pattern: '/', ...(act === undefined ? {} : { act }) }, ROUND);

  it('is the landing, and the wait of who acts once it has come to rest', () => {
    const { reading, timeline } = predict(app, BASELINE, '/', ROUND);
    expect(of()).toEqual({ milestones: reading.milestones, timeline });
    const { wait } = of('dialog');
    const { requests } = timeline;
    expect(wait).toBeGreaterThan(ROUND.link.rttMs);
    expect(requests.some((r) => r.name.includes('dialog'))).toBe(false);
    const slower = { ...ROUND, link: { ...ROUND.link, rttMs: ROUND.link.rttMs + 400 } };
    expect(predictedOf(app, BASELINE, { pattern: '/', act: 'dialog' }, slower).wait! - wait!).toBeCloseTo(400, 0);
  });

  it('is the wait of who moves to another route, where that is named', () => {
    const { wait } = of('/far');
    expect(wait).toBeGreaterThan(ROUND.link.rttMs);
    expect(wait).toBeLessThan(10 * ROUND.link.rttMs);
    expect(movedTo(app, '/', '/far')).toBe(app.routes[1]);
    for (const act of ['dialog', '/', '/nowhere']) expect(movedTo(app, '/', act)).toBeUndefined();
  });
});
