import { constantText, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/** By what a build's loader asks for a file. */
export type LoaderId = string | number;

/** One import of a build's loader: all that it asks for together, by name or by number. */
export interface AskedTogether {
  start: number;
  names: string[];
  ids: LoaderId[];
}

/** A worker that is started: its script by constant address, or by what a loader's function gives for an id. */
export interface StartedWorker {
  start: number;
  names: string[];
  ids: LoaderId[];
}

/**
 * What may be imports of a loader: names of files, and calls with one constant, in one `Promise.all`; such a call that is followed by `then`; a
 * file with a list of others. Whether a constant means a file is told by the functions that name files.
 */
export function askedTogether(program: SyntaxNode): AskedTogether[] {
  const found: AskedTogether[] = [];
  walk(program, (node) => {
    if (node.type !== 'CallExpression') return;
    const callee = node.callee as SyntaxNode;
    const property = callee.type === 'MemberExpression' ? nameOf(callee.property) : null;
    const [first, second] = node.arguments as SyntaxNode[];
    const asked: AskedTogether = { start: node.start, names: [], ids: [] };
    if (property === 'all' && isNode(first)) {
      for (const item of listed(first)) {
        asked.names.push(...fileNameIn(item));
        asked.ids.push(...idOf(item));
      }
    } else if (property === 'then') asked.ids.push(...idOf(callee.object));
    else if (isNode(first) && isNode(second) && second.type === 'ArrayExpression' && fileNameIn(first).length > 0)
      asked.names.push(...fileNameIn(first), ...listed(second).flatMap(fileNameIn));
    if (asked.names.length + asked.ids.length > 0) found.push(asked);
  });
  return found;
}

/** The items of a written list, also of one that a call of its `map` goes through. */
function listed(node: SyntaxNode): unknown[] {
  if (node.type === 'ArrayExpression') return node.elements as unknown[];
  const callee = node.type === 'CallExpression' ? (node.callee as SyntaxNode) : null;
  const isMap = callee?.type === 'MemberExpression' && nameOf(callee.property) === 'map';
  return isMap ? listed(callee.object as SyntaxNode) : [];
}

function fileNameIn(node: unknown): string[] {
  const text = constantText(node);
  return text !== null && /\.(m?js|css)([?#]|$)/.test(text) ? [text] : [];
}

/** The workers that a script starts. */
export function workersIn(program: SyntaxNode): StartedWorker[] {
  const found: StartedWorker[] = [];
  walk(program, (node) => {
    if (node.type !== 'NewExpression') return;
    const callee = node.callee as SyntaxNode;
    const called = nameOf(callee.type === 'MemberExpression' ? callee.property : callee) ?? '';
    const [address] = node.arguments as SyntaxNode[];
    if (!/Worker$/.test(called) || !isNode(address)) return;
    const worker: StartedWorker = { start: node.start, names: [], ids: [] };
    walk(address, (inner) => {
      const text = constantText(inner);
      if (text !== null && /\.m?js([?#]|$)/.test(text)) worker.names.push(text);
      worker.ids.push(...idOf(inner));
    });
    found.push(worker);
  });
  return found;
}

/** The constant that a method is called with alone. */
function idOf(call: unknown): LoaderId[] {
  if (!isNode(call) || call.type !== 'CallExpression') return [];
  const [id] = call.arguments as SyntaxNode[];
  if (!isNode(id) || id.type !== 'Literal') return [];
  return typeof id.value === 'string' || typeof id.value === 'number' ? [id.value] : [];
}
