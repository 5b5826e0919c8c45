import { deserialize, serialize } from 'node:v8';
import { withSharedEmpties } from './shared-empties.ts';

const holder = () => ({
  ...{ list: [] as number[], map: new Map<string, number>(), set: new Set<string>() },
  ...{
    full: [1],
    one: new Map([['a', 1]]),
    some: new Set(['a']),
    inner: { list: [] },
    none: null,
    text: '',
    is: false,
  },
});

describe('empty collections that are shared', () => {
  it('are equal to those that stood there, the same for all holders, and travel as they do', () => {
    const [a, b] = [withSharedEmpties(holder()), withSharedEmpties(holder())];
    expect(a).toEqual(holder());
    expect([a.list, a.map, a.set].every((one, i) => one === [b.list, b.map, b.set][i])).toBe(true);
    expect(deserialize(serialize(a))).toStrictEqual(holder());
    expect(structuredClone(a)).toStrictEqual(holder());
    const { full } = a;
    expect(withSharedEmpties(a).full).toBe(full);
  });

  it('can’t be changed by one of them', () => {
    const { list, map, set } = withSharedEmpties(holder());
    expect(() => list.push(1)).toThrow(TypeError);
    expect(() => map.set('a', 1)).toThrow(TypeError);
    expect(() => set.add('a')).toThrow(TypeError);
    expect(withSharedEmpties(holder())).toEqual(holder());
  });
});
