import { type SyntaxNode, walk } from './syntax.ts';

/** A program with one node inside of another. */
function nested(depth: number): SyntaxNode {
  let node: SyntaxNode = { type: 'Identifier', start: 0, end: 1 };
  for (let n = 0; n < depth; n++) node = { type: 'ParenthesizedExpression', start: 0, end: 1, expression: node };
  return { type: 'Program', start: 0, end: 1, body: [node] };
}

it('goes through a tree the same way each time, with what is around each node', () => {
  const program = nested(3);
  const seen = () => {
    const said: string[] = [];
    walk(program, ({ type }, above) => void said.push(`${type} ${above.length}`));
    return said;
  };
  const first = seen();
  expect(first).toEqual(['Program 0', ...[1, 2, 3].map((n) => `ParenthesizedExpression ${n}`), 'Identifier 4']);
  expect(seen()).toEqual(first);
});

it('says each time that a tree is too deep, and never goes through a part of it', () => {
  const program = nested(200_000);
  const visit = () => {
    throw new Error('a part of it was gone through');
  };
  for (let n = 0; n < 2; n++) expect(() => walk(program, visit)).toThrow(RangeError);
});
