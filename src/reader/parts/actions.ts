import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/** A place where the person's doing sets a state. */
export interface SetterCall {
  setter: string;
  /** Texts in what it is called with, which tell one of several values from another. */
  constants: string[];
  /** What the person does, in the words on the element. */
  words: string;
}

/**
 * Finds every event handler that sets a state, be it written on the element or in a function that it names. `objects`
 * are names whose own functions set them: `sheet.open()` sets `sheet`.
 */
export function findActions(
  program: SyntaxNode,
  setters: ReadonlySet<string>,
  objects: ReadonlySet<string>,
): SetterCall[] {
  const functions = functionsOf(program);
  const found: SetterCall[] = [];
  walk(program, (node, above) => {
    if (node.type !== 'JSXAttribute' || !/^on[A-Z]/.test(nameOf(node.name) ?? '')) return;
    const opening = above.at(-1);
    const words = wordsOf(node, opening, above.at(-2));
    for (const call of callsIn(node, functions, new Set())) {
      const setter = nameOf(call.callee);
      const owner = ownerOf(call.callee);
      if (setter !== null && setters.has(setter)) found.push({ setter, constants: constantsIn(call), words });
      else if (owner !== null && objects.has(owner)) found.push({ setter: owner, constants: constantsIn(call), words });
    }
    // `onClick={setOpen}` hands the event over.
    const { value } = node;
    const handed = isNode(value) ? value.expression : null;
    const bare = nameOf(handed);
    const owner = ownerOf(handed);
    if (bare !== null && setters.has(bare)) found.push({ setter: bare, constants: [], words });
    else if (owner !== null && objects.has(owner)) found.push({ setter: owner, constants: [], words });
  });
  return found;
}

/** `sheet` of `sheet.open`. */
function ownerOf(node: unknown): string | null {
  return isNode(node) && node.type === 'MemberExpression' ? nameOf(node.object) : null;
}

/** Functions of a module by their name. */
function functionsOf(program: SyntaxNode): Map<string, SyntaxNode> {
  const functions = new Map<string, SyntaxNode>();
  walk(program, (node) => {
    if (node.type === 'FunctionDeclaration') {
      const name = nameOf(node.id);
      if (name) functions.set(name, node);
    } else if (node.type === 'VariableDeclarator' && isNode(node.init)) {
      const name = nameOf(node.id);
      const body = functionIn(node.init);
      if (name && body) functions.set(name, body);
    }
  });
  return functions;
}

/** A function, or one that is handed to another to be remembered: `useCallback(() => …)`. */
function functionIn(init: SyntaxNode): SyntaxNode | null {
  if (isFunction(init)) return init;
  const [first] = init.type === 'CallExpression' ? (init.arguments as SyntaxNode[]) : [];
  return first && isFunction(first) ? first : null;
}

/** Calls inside of a node and inside of the module's own functions that it names. */
function callsIn(node: SyntaxNode, functions: ReadonlyMap<string, SyntaxNode>, seen: Set<string>): SyntaxNode[] {
  const calls: SyntaxNode[] = [];
  walk(node, (inner) => {
    if (inner.type === 'CallExpression') calls.push(inner);
    if (inner.type !== 'Identifier') return;
    const name = inner.name as string;
    const body = functions.get(name);
    if (!body || seen.has(name)) return;
    seen.add(name);
    calls.push(...callsIn(body, functions, seen));
  });
  return calls;
}

function constantsIn(call: SyntaxNode): string[] {
  const constants: string[] = [];
  for (const argument of call.arguments as SyntaxNode[]) {
    walk(argument, (node) => {
      const text = constantText(node);
      if (text !== null) constants.push(text);
      else if (node.type === 'Literal') constants.push(String(node.value));
    });
  }
  return constants;
}

function wordsOf(attribute: SyntaxNode, opening: SyntaxNode | undefined, element: SyntaxNode | undefined): string {
  const inside = element?.type === 'JSXElement' ? wordsIn(element) : '';
  if (inside !== '') return inside;
  for (const name of ['aria-label', 'title']) {
    const labelled = (opening?.attributes as SyntaxNode[] | undefined)?.find((a) => nameOf(a.name) === name);
    const words = constantText(labelled?.value);
    if (words) return words;
  }
  return `${nameOf(attribute.name)!.slice(2).toLowerCase()} in ${nameOf(opening?.name) ?? 'an element'}`;
}

/** The text in an element, or the last name of what it shows, as in `{messages.makeTicket}`. */
function wordsIn(element: SyntaxNode): string {
  const words: string[] = [];
  walk(element, (node, above) => {
    if (above.some((n) => n.type === 'JSXAttribute')) return;
    if (node.type === 'JSXText') words.push(String(node.value).trim());
    else if (node.type === 'JSXExpressionContainer' && isNode(node.expression)) {
      const { expression } = node;
      const constant = constantText(expression);
      const shown = expression.type === 'MemberExpression' ? nameOf(expression.property) : null;
      words.push(constant ?? (shown ? shown.replace(/([A-Z])/g, ' $1').toLowerCase() : ''));
    }
  });
  return words
    .filter((w) => w !== '')
    .join(' ')
    .slice(0, 60);
}
