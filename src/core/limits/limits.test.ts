import { limitedApp as app, limit } from '../../test-support/limited-app.ts';
import { InputError } from '../errors.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { limitStates, proposeLimits } from './limits.ts';
import { LIMIT } from './types.ts';
import { amountWords, limitWords } from './words.ts';

describe('limits', () => {
  it('of a plan are kept by it, with slack, and equal what the landing shows', () => {
    const limits = proposeLimits(app(), BASELINE, DEFAULT_CONDITIONS, 0.1);
    expect(limits.map((l) => `${l.action ?? ''}${l.measure}`)).toEqual([
      'start bytes',
      'requests',
      'hops',
      'interactive',
      'dialogwait',
    ]);
    const states = limitStates(app(), limits, []);
    expect(states.map((s) => s.state)).toEqual(['kept', 'kept', 'kept', 'kept', 'kept']);
    const { readout, milestones } = predict(app(), BASELINE, '/', DEFAULT_CONDITIONS).reading;
    const value = (measure: string) => states.find((s) => s.limit.measure === measure)!.value;
    expect(value('start bytes')).toBe(readout.startBytes);
    expect(value('interactive')).toBe(milestones.interactive);
    for (const s of states) {
      const slack = s.limit.most / s.value!;
      expect(slack).toBeGreaterThanOrEqual(1);
      expect(s.limit.measure === 'hops' ? slack : slack / 1.1).toBeLessThan(
        s.limit.measure === 'requests' ? 1.5 : 1.05,
      );
    }
    const tight = limits.map((l) => ({ ...l, most: states.find((s) => s.limit === l)!.value! * 0.99 }));
    expect(limitStates(app(), tight, []).every((s) => s.state === 'broken')).toBe(true);
  });

  it('for a route or an action that is gone are missing, not kept', () => {
    const states = limitStates(app(), [limit({ route: '/gone' }), limit({ action: 'gone', measure: 'wait' })], []);
    expect(states).toMatchObject([{ state: 'missing' }, { state: 'missing' }]);
  });

  it('are measured under the plan they were set for, unless another is given', () => {
    const joined: Plan = {
      name: 'Joined',
      description: '',
      decisions: [{ kind: 'join', import: 'src/page.ts::src/dialog.ts' }],
    };
    const [own, none] = [limit({ plan: 'Joined' }), limit()];
    expect(limitStates(app(), [own, none], [joined]).map((s) => s.state)).toEqual(['broken', 'kept']);
    expect(limitStates(app(), [own, none], [joined], BASELINE).map((s) => s.state)).toEqual(['kept', 'kept']);
    expect(() => limitStates(app(), [own], [])).toThrow(InputError);
    expect(() => limitStates(app(), [own], [])).toThrow('there are none but the baseline');
  });

  it('are told in words, with units', () => {
    expect(limitWords(limit())).toBe('/: start at most 30 kB');
    expect(limitWords(limit({ action: 'dialog', measure: 'wait', most: 250 }))).toBe('/ › dialog: wait at most 250 ms');
    expect([amountWords('hops', 2), amountWords('interactive', null)]).toEqual(['2', 'never']);
  });

  it.each<[object, string]>([
    [{ ...limit(), most: -1 }, 'limits[0].most'],
    [{ ...limit(), measure: 'wait' }, 'limits[0].measure'],
    [{ ...limit(), action: 'dialog' }, 'limits[0].measure'],
    [{ ...limit(), route: 'no slash' }, 'limits[0].route'],
    [{ ...limit(), cache: 'cold' }, 'limits[0].cache'],
  ])('from outside name the field that is wrong: %j', (value, at) => {
    expect(() => LIMIT.check(value, 'limits[0]')).toThrow(expect.objectContaining({ at }));
  });
});
