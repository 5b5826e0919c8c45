import fc from 'fast-check';
import { ROWS } from '../../core/load/list-lengths.ts';
import type { Shape } from '../../reader/answers/shape.ts';
import { madeUp } from './made-up.ts';

const { shape } = fc.letrec<{ shape: Shape }>((tie) => ({
  shape: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.constantFrom<Shape>({ is: 'text' }, { is: 'number' }, { is: 'flag' }, { is: 'date' }, { is: 'nothing' }),
    fc.record({
      is: fc.constant('one of' as const),
      values: fc.array(fc.oneof(fc.string(), fc.integer()), { minLength: 1, maxLength: 4 }),
    }),
    fc.record({ is: fc.constant('list' as const), of: tie('shape') }),
    fc.record({ is: fc.constant('record' as const), of: tie('shape') }),
    fc.record({
      is: fc.constant('any of' as const),
      shapes: fc.array(tie('shape'), { minLength: 1, maxLength: 3 }),
    }),
    fc.record({
      is: fc.constant('object' as const),
      fields: fc.uniqueArray(fc.record({ name: fc.constantFrom('id', 'name', 'rows', 'at'), of: tie('shape') }), {
        selector: (f) => f.name,
        maxLength: 3,
      }),
    }),
  ),
}));

/** Whether a value is of a shape; what is too deep may be left out. */
function fits(value: unknown, of: Shape): boolean {
  switch (of.is) {
    case 'text':
      return typeof value === 'string';
    case 'date':
      return typeof value === 'string' && !Number.isNaN(Date.parse(value));
    case 'number':
      return typeof value === 'number';
    case 'flag':
      return typeof value === 'boolean';
    case 'nothing':
      return value === null;
    case 'one of':
      return of.values.includes(value as string);
    case 'any of':
      return of.shapes.some((s) => fits(value, s));
    case 'list':
      return Array.isArray(value) && value.every((v) => fits(v, of.of));
    case 'record':
      return value !== null && typeof value === 'object' && Object.values(value).every((v) => fits(v, of.of));
    case 'object':
      return value === null || of.fields.every((f) => fits((value as Record<string, unknown>)[f.name], f.of));
  }
}

describe('made-up answers', () => {
  it('are of their shape, the same each time, and no larger than a page can draw', () => {
    fc.assert(
      fc.property(shape, (of) => {
        const made = madeUp(of);
        expect(fits(made, of)).toBe(true);
        expect(madeUp(of)).toEqual(made);
      }),
      { numRuns: 500 },
    );
  });

  it('have as many rows as predictions count, and fewer in each of them', () => {
    const rows = madeUp({
      is: 'list',
      of: {
        is: 'object',
        fields: [
          { name: 'id', of: { is: 'number' } },
          { name: 'lines', of: { is: 'list', of: { is: 'text' } } },
        ],
      },
    }) as { id: number; lines: string[] }[];
    expect(rows.map((r) => r.id)).toEqual(Array.from({ length: ROWS }, (_, i) => i + 1));
    expect(rows[0].lines).toHaveLength(3);
  });

  it('hold what fields of these names mostly do', () => {
    const of = (name: string, is: 'text' | 'number') =>
      (madeUp({ is: 'object', fields: [{ name, of: { is } }] }) as Record<string, unknown>)[name];
    for (const name of ['createdAt', 'date', 'updated_at'])
      expect(Date.parse(of(name, 'text') as string)).not.toBeNaN();
    // A browser takes the words around a number for nothing: what an app takes for a date is one.
    expect(new Date(of('placed', 'text') as string).getTime()).not.toBeNaN();
    expect(of('email', 'text')).toMatch(/^\S+@\S+$/);
    expect(of('avatar', 'text')).toMatch(/^data:image/);
    expect(of('customerId', 'text')).toBe('customer-1');
    expect(of('latitude', 'number')).toBe(54);
    expect(of('progress', 'number')).toBeLessThanOrEqual(1);
  });

  it('differ from row to row, and take kinds in turn', () => {
    const kinds = madeUp({
      is: 'list',
      of: { is: 'any of', shapes: [{ is: 'one of', values: ['a'] }, { is: 'number' }] },
    }) as unknown[];
    expect(kinds.slice(0, 3).map((k) => typeof k)).toEqual(['string', 'number', 'string']);
    const names = madeUp({ is: 'list', of: { is: 'text' } }) as string[];
    expect(new Set(names).size).toBe(ROWS);
  });
});
