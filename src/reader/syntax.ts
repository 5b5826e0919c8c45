/** A node of the parsed tree, as loose as the walkers need it. */
export interface SyntaxNode {
  type: string;
  start: number;
  end: number;
  [field: string]: unknown;
}

export function isNode(value: unknown): value is SyntaxNode {
  return typeof value === 'object' && value !== null && typeof (value as SyntaxNode).type === 'string';
}

/** Visits every node, parents first, with its ancestors (nearest last). Trees that `visit` changes are for `walkAndChange`. */
export function walk(root: SyntaxNode, visit: (node: SyntaxNode, above: readonly SyntaxNode[]) => void): void {
  const above: SyntaxNode[] = [];
  if (root.type !== 'Program') {
    step(root, above, visit);
    return;
  }
  const { nodes, depths } = nodesBelow(root);
  for (let i = 0; i < nodes.length; i++) {
    for (let up = above.length - depths[i]; up > 0; up--) above.pop();
    visit(nodes[i], above);
    above.push(nodes[i]);
  }
}

/** The same for visitors that put something else into the nodes that they meet; what they put there is visited as well. */
export function walkAndChange(root: SyntaxNode, visit: (node: SyntaxNode, above: readonly SyntaxNode[]) => void): void {
  // The whole tree around it may be known in the order in which it was.
  known = null;
  step(root, [], visit);
}

function step(
  node: SyntaxNode,
  above: SyntaxNode[],
  visit: (node: SyntaxNode, above: readonly SyntaxNode[]) => void,
): void {
  visit(node, above);
  above.push(node);
  for (const field in node) {
    const value = node[field];
    if (Array.isArray(value)) {
      for (const item of value) if (isNode(item)) step(item, above, visit);
    } else if (isNode(value)) step(value, above, visit);
  }
  above.pop();
}

interface NodesBelow {
  root: SyntaxNode;
  nodes: SyntaxNode[];
  depths: number[];
}

/** Of the program that was walked last: readers walk the same one a dozen times in a row, and going through the fields of all nodes is most of that. */
let known: NodesBelow | null = null;

function nodesBelow(root: SyntaxNode): NodesBelow {
  if (known?.root === root) return known;
  const found: NodesBelow = { root, nodes: [], depths: [] };
  // A tree that is too deep to be gone through ends this: it must not be known as far as that came.
  gather(root, 0, found);
  known = found;
  return found;
}

/** As `step` goes, without anybody to tell: half of what walking costs is coming to the nodes for the first time. */
function gather(node: SyntaxNode, depth: number, into: NodesBelow): void {
  into.nodes.push(node);
  into.depths.push(depth);
  for (const field in node) {
    const value = node[field];
    if (typeof value !== 'object' || value === null) continue;
    if (Array.isArray(value)) {
      for (const item of value) if (isNode(item)) gather(item, depth + 1, into);
    } else if (isNode(value)) gather(value, depth + 1, into);
  }
}

/** The text of a string literal or of a template without places to fill; null for anything else. */
export function constantText(node: unknown): string | null {
  if (!isNode(node)) return null;
  if (node.type === 'Literal' && typeof node.value === 'string') return node.value;
  if (node.type === 'TemplateLiteral' && (node.expressions as unknown[]).length === 0) {
    const [only] = node.quasis as { value: { cooked: string } }[];
    return only.value.cooked;
  }
  return null;
}

export function isFunction({ type }: SyntaxNode): boolean {
  return type === 'ArrowFunctionExpression' || type === 'FunctionExpression' || type === 'FunctionDeclaration';
}

const AROUND_VALUES = new Set([
  ...['ParenthesizedExpression', 'AwaitExpression', 'JSXExpressionContainer'],
  ...['TSAsExpression', 'TSSatisfiesExpression', 'TSNonNullExpression'],
]);

/** A value without what stands around it and doesn't change which one it is: brackets, types, waiting for it. */
export function bare(value: SyntaxNode): SyntaxNode {
  const inner = AROUND_VALUES.has(value.type) ? (value.expression ?? value.argument) : null;
  return isNode(inner) ? bare(inner) : value;
}

/** Name of a property key or identifier; null when it is computed. */
export function nameOf(node: unknown): string | null {
  if (!isNode(node)) return null;
  if (typeof node.name === 'string') return node.name;
  return constantText(node);
}

/** Names that a pattern gives: `rows`, `{ data: rows = [] }`, `[rows]`. */
export function namesIn(pattern: unknown): string[] {
  if (!isNode(pattern)) return [];
  switch (pattern.type) {
    case 'Identifier':
      return [pattern.name as string];
    case 'AssignmentPattern':
      return namesIn(pattern.left);
    case 'RestElement':
      return namesIn(pattern.argument);
    case 'ArrayPattern':
      return (pattern.elements as unknown[]).flatMap(namesIn);
    case 'ObjectPattern':
      return (pattern.properties as SyntaxNode[]).flatMap((p) => namesIn(p.type === 'RestElement' ? p : p.value));
    default:
      return [];
  }
}
