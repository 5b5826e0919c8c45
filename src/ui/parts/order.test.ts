import fc from 'fast-check';
import { inOrder, type Values } from './order.tsx';

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
