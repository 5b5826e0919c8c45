import fc from 'fast-check';
import { keptStorage } from '../../test-support/kept-storage.ts';
import { keepInMap } from './kept-map.ts';
import { inOrder, ORDERS, type Order, type OrderedList, rememberedOrder, type Values } from './order.tsx';

const rememberOrder = (list: OrderedList, order: Order<string>) => keepInMap(ORDERS, list, order);

interface Row {
  name: string;
  size: number;
  at: number;
}
const VALUES: Values<Row, 'name' | 'size'> = { name: (r) => r.name, size: (r) => r.size };
const rows = fc
  .array(fc.record({ name: fc.constantFrom('a', 'b', 'B', '10', '9'), size: fc.integer({ min: 0, max: 4 }) }))
  .map((list) => list.map((r, at): Row => ({ ...r, at })));

it.each(['name', 'size'] as const)('rows are put in order by %s, both ways round, equal ones as they were', (by) => {
  fc.assert(
    fc.property(rows, fc.boolean(), (all, rising) => {
      const sorted = inOrder(all, VALUES, { by, rising });
      expect([...sorted].sort((a, b) => a.at - b.at)).toEqual(all);
      for (const [i, row] of sorted.slice(1).entries()) {
        const before = sorted[i];
        if (before[by] === row[by]) expect(before.at).toBeLessThan(row.at);
        else expect(before[by] < row[by]).toBe(rising);
      }
    }),
  );
});

describe('the order of a list is remembered', () => {
  const kept = keptStorage();

  it('under its name, beside those of others', () => {
    rememberOrder('modules', { by: 'name', rising: true });
    rememberOrder('copies', { by: 'size', rising: false });
    expect(rememberedOrder('modules', VALUES)).toEqual({ by: 'name', rising: true });
    expect(rememberedOrder('copies', VALUES)).toEqual({ by: 'size', rising: false });
    expect(rememberedOrder('packages', VALUES)).toBeNull();
    keepInMap(ORDERS, 'modules', null);
    expect(rememberedOrder('modules', VALUES)).toBeNull();
    expect(rememberedOrder('copies', VALUES)).toEqual({ by: 'size', rising: false });
  });

  it.each([
    '',
    'x',
    'null',
    '[]',
    '3',
    '{"modules":null}',
    '{"modules":{"by":"name"}}',
    '{"modules":{"by":"toString","rising":true}}',
  ])('unless what is kept is none: %s', (text) => {
    if (text !== '') kept.set(ORDERS, text);
    expect(rememberedOrder('modules', VALUES)).toBeNull();
    rememberOrder('modules', { by: 'size', rising: true });
    expect(rememberedOrder('modules', VALUES)).toEqual({ by: 'size', rising: true });
  });
});
