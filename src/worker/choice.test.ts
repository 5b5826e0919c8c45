import { DEVICES, LINKS } from '../core/sim/conditions.ts';
import { choiceOf, conditionsOf, wishesOf } from './choice.ts';

const plans = ['one', 'two'].map((id) => ({ id, name: id, description: '', decisions: [] }));
const routes = [{ pattern: '/' }, { pattern: '/list' }];

describe('what is shown of an app', () => {
  it('is what the address asks for, as far as the app has it', () => {
    const wished = wishesOf(`?plan=two&route=%2Flist&link=${LINKS[1].id}&device=${DEVICES[1].id}&cache=returning`);
    expect(choiceOf(wished, plans, routes)).toEqual({
      ...{ planId: 'two', route: '/list', linkId: LINKS[1].id, deviceId: DEVICES[1].id, cache: 'returning' },
    });
    expect(choiceOf(wishesOf('?plan=baseline'), plans, routes).planId).toBeNull();
  });

  it('is the first of each kind otherwise', () => {
    const first = { planId: 'one', route: '/', linkId: LINKS[0].id, deviceId: DEVICES[0].id, cache: 'empty' };
    expect(choiceOf(wishesOf(''), plans, routes)).toEqual(first);
    expect(choiceOf(wishesOf('?plan=x&route=x&link=x&device=x&cache=x'), plans, routes)).toEqual(first);
    expect(wishesOf('?cache=x').cache).toBeUndefined();
    expect(choiceOf({}, [], [])).toMatchObject({ planId: null, route: '' });
  });

  it('stands for conditions', () => {
    expect(conditionsOf(choiceOf({}, plans, routes))).toEqual({ link: LINKS[0], device: DEVICES[0], cache: 'empty' });
  });
});
