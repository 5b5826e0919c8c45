import { madeUp } from '../../rehearse/stage/made-up.ts';
import { shapeOfQuery } from './shape-of-query.ts';

const FRAGMENT =
  'fragment Tide on Tide { id at: time ...Place }\nfragment Place on Tide { haven { name address { street } } }';

/** A made-up answer to the query `Q` with these fields, lists with their first row. */
function answered(fields: string, others: string[] = [], head = 'query Q'): unknown {
  const shape = shapeOfQuery('Q', [`const a = 1;`, `export const q = gql\`${head} { ${fields} }\`;`, ...others]);
  return shape && JSON.parse(JSON.stringify(madeUp(shape), (_, v) => (Array.isArray(v) ? v.slice(0, 1) : v)));
}

describe('what a query answers', () => {
  it.each([
    ['fields', 'name isOpen kg', { name: 'Made-up name 1', isOpen: true, kg: 10 }],
    [
      'lists by their names, and single ones',
      'tides { id } status { id } haven { id }',
      { tides: [{ id: 'no-1' }], status: { id: 'no-1' }, haven: { id: 'no-1' } },
    ],
    [
      'arguments and directives',
      'tides(first: 3, where: { at: "x)" }) @include(if: $all) @client { id @skip(if: $no) kg } b',
      { tides: [{ id: 'no-1', kg: 10 }], b: 'Made-up b 1' },
    ],
    ['names that are given', 'all: tides { no: id }', { all: [{ no: 'Made-up no 1' }] }],
    [
      'parts of a kind',
      '... on Tide { kg } ...@include(if: $x) { cents } ... { c }',
      { kg: 10, cents: 10, c: 'Made-up c 1' },
    ],
    ['remarks', '# tides { id }\n b # c\n', { b: 'Made-up b 1' }],
  ])('has %s', (_, fields, expected) => {
    expect(answered(fields)).toEqual(expected);
  });

  it('has the fields of fragments, wherever these stand', () => {
    const expected = {
      tides: [
        { id: 'no-1', at: 'Made-up at 1', haven: { name: 'Made-up name 1', address: { street: 'Made-up street 1' } } },
      ],
    };
    expect(answered('tides { ...Tide }', [FRAGMENT], 'query Q($a: In = { b: 1 }, $c: [ID!]!)')).toEqual(expected);
  });

  it('ends where fragments name one another', () => {
    const round = 'fragment A on T { a ...B ...B } fragment B on T { b ...A ...A }';
    expect(answered('...A', [round])).toEqual({ a: 'Made-up a 1', b: 'Made-up b 1' });
  });

  it('isn’t known of a query that stands nowhere, or of another one', () => {
    expect(shapeOfQuery('Other', ['query Q { a }', 'query Others { a }'])).toBeNull();
  });
});
