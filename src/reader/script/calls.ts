import type { DeferredContext } from '../../core/snapshot/module-types.ts';
import { fileGlobOf } from '../file-globs.ts';
import type { SourceText } from '../source-text.ts';
import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { begunAt, isReached } from './begun.ts';
import { importComments } from './import-comments.ts';
import type { ParsedScript, StartedScript } from './parsed-script.ts';
import { takenNames } from './taken-names.ts';

/** Notes what a script asks for by calls: deferred imports, requires, workers, files by address or by pattern. */
export function collectCalls(program: SyntaxNode, source: SourceText, result: ParsedScript): void {
  const makers = workerMakers(program);
  walk(program, (node, above) => {
    if (node.type === 'ImportExpression') noteDeferred(node, above, program, source, result);
    else if (node.type === 'CallExpression') noteCall(node, source, result);
    else if (node.type === 'NewExpression') noteMade(node, above, { program, source, makers }, result);
  });
}

/** An import that gives what makes a worker of the script. */
export const WORKER_QUERY = /\?(worker|sharedworker)\b/;

/** So much of a text that can't be followed is told. */
const MOST_WRITTEN = 80;

function noteDeferred(
  node: SyntaxNode,
  above: readonly SyntaxNode[],
  program: SyntaxNode,
  source: SourceText,
  { unclear, globs, imports }: ParsedScript,
): void {
  const specifier = constantText(node.source);
  const place = source.place(node.start);
  const { start, end } = node;
  const { isLeftAlone, ...said } = importComments(source.text, node);
  const written = specifier ?? source.text.slice(start, Math.min(end, start + MOST_WRITTEN));
  if (isLeftAlone) {
    const reason = 'a comment leaves it to the browser';
    unclear.push({ specifier: written, line: place.line, reason, leftOut: true });
    return;
  }
  const context = contextOf(node, above);
  const found = { kind: 'dynamic', names: ['*'], context, ...said, ...place, start, end } as const;
  const glob = specifier === null ? globOf(node.source) : null;
  if (glob) globs.push({ ...glob, found: { ...found, names: ['*'], specifier: `${glob.prefix}*${glob.suffix}` } });
  else if (specifier === null)
    unclear.push({ specifier: written, line: place.line, reason: 'the address is not a constant', leftOut: false });
  else {
    const waits = context === 'module' && above.at(-1)?.type === 'AwaitExpression';
    const taken = takenNames(above);
    const caught = isCaught(above);
    const begun = begunAt(program, above);
    imports.push({
      ...found,
      names: ['*'],
      specifier,
      ...(waits ? { awaited: true } : {}),
      ...(taken ? { taken } : {}),
      ...(caught ? { caught } : {}),
      ...(begun ? { begun } : {}),
    });
  }
}

/** Whether a failed import is caught where it is made: by `.catch(…)`, a second function of `.then(…)`, or `try` around an `await`. */
function isCaught(above: readonly SyntaxNode[]): boolean {
  for (let at = above.length - 1; at >= 0 && !isFunction(above[at]); at--) {
    const [node, call] = [above[at], above[at - 1]];
    if (node.type === 'TryStatement' && above[at + 1] === node.block && node.handler)
      return above.slice(at).some((n) => n.type === 'AwaitExpression');
    if (node.type !== 'MemberExpression' || call?.type !== 'CallExpression' || call.callee !== node) continue;
    const name = nameOf(node.property);
    if (name === 'catch' || (name === 'then' && (call.arguments as unknown[]).length > 1)) return true;
  }
  return false;
}

/** `require`, and whatever stands for files of a pattern. */
function noteCall(node: SyntaxNode, source: SourceText, { imports, fileGlobs }: ParsedScript): void {
  if (nameOf(node.callee) !== 'require') {
    const glob = fileGlobOf(node, source);
    if (glob) fileGlobs.push(glob);
    return;
  }
  const specifier = constantText((node.arguments as unknown[])[0]);
  if (specifier === null) return;
  const { start, end } = node;
  imports.push({ kind: 'static', specifier, names: ['*'], required: true, ...source.place(start), start, end });
}

/** What an import gives that makes a worker of the script (`./x?worker`, a convention of several builds): specifiers by local name. */
function workerMakers(program: SyntaxNode): ReadonlyMap<string, string> {
  const makers = new Map<string, string>();
  for (const statement of program.body as SyntaxNode[]) {
    if (statement.type !== 'ImportDeclaration') continue;
    const specifier = constantText(statement.source) ?? '';
    if (!WORKER_QUERY.test(specifier)) continue;
    for (const { type, local } of statement.specifiers as SyntaxNode[])
      if (type === 'ImportDefaultSpecifier') makers.set(nameOf(local) ?? '', specifier);
  }
  return makers;
}

interface Around {
  program: SyntaxNode;
  source: SourceText;
  makers: ReadonlyMap<string, string>;
}

/** A worker, or `new URL('…', import.meta.url)`: the file of one, or any other. */
function noteMade(
  node: SyntaxNode,
  above: readonly SyntaxNode[],
  { program, source, makers }: Around,
  { workers, assets }: ParsedScript,
): void {
  const { line } = source.place(node.start);
  const started = (specifier: string): StartedScript => {
    const begun = begunAt(program, above);
    return { specifier, line, context: startContext(node, above), ...(begun ? { begun } : {}) };
  };
  const maker = makers.get(nameOf(node.callee) ?? '');
  if (maker !== undefined) workers.push(started(maker));
  if (nameOf(node.callee) !== 'URL') return;
  const [first, base] = node.arguments as SyntaxNode[];
  const address = constantText(first);
  // An address is relative, with a dot at its beginning or without.
  const specifier = address !== null && /^[\w@-][^:]*$/.test(address) ? `./${address}` : address;
  if (specifier === null || !base || !source.text.slice(base.start, base.end).includes('import.meta.url')) return;
  const parent = above[above.length - 1];
  if (parent?.type === 'NewExpression' && /Worker$/.test(calledName(parent))) workers.push(started(specifier));
  else assets.push({ ...started(specifier), start: node.start, end: node.end });
}

/** What the code around a place that starts something tells about when it runs: with its module, or once that is drawn, where nobody has to act. */
function startContext(node: SyntaxNode, above: readonly SyntaxNode[]): DeferredContext {
  const context = contextOf(node, above);
  return context !== 'module' && isReached(above) ? 'wrapper' : context;
}

/** The name of what is called, be it a global or one of `window`, `self` and the like. */
function calledName({ callee }: SyntaxNode): string {
  const called = callee as SyntaxNode;
  return nameOf(called.type === 'MemberExpression' ? called.property : called) ?? '';
}

/** Places outside of functions where a module waits for something that isn't an import. */
export function waitsAtStart(program: SyntaxNode, source: SourceText): { line: number }[] {
  const found: { line: number }[] = [];
  walk(program, (node, above) => {
    const waits = node.type === 'AwaitExpression' || (node.type === 'ForOfStatement' && node.await === true);
    const ofImport = isNode(node.argument) && node.argument.type === 'ImportExpression';
    if (waits && !ofImport && !above.some(isFunction)) found.push({ line: source.place(node.start).line });
  });
  return found;
}

/** Constant beginning and end of a computed address with one gap; null without a folder to look in. */
function globOf(node: unknown): { prefix: string; suffix: string } | null {
  if (!isNode(node) || node.type !== 'TemplateLiteral' || (node.expressions as unknown[]).length !== 1) return null;
  const [before, after] = (node.quasis as { value: { cooked: string } }[]).map((q) => q.value.cooked);
  return /^\.{1,2}\/.*\//.test(before) || /^\.{1,2}\/$/.test(before) ? { prefix: before, suffix: after } : null;
}

/** What the code around a deferred import tells about when it runs. */
function contextOf(node: SyntaxNode, above: readonly SyntaxNode[]): DeferredContext {
  const functions = above.filter(isFunction);
  if (functions.length === 0) return 'module';
  if (above.some((n, i) => isHandler(n, above[i + 1]))) return 'handler';
  const nearest = functions[functions.length - 1];
  const parent = above[above.indexOf(nearest) - 1];
  const wraps = parent?.type === 'CallExpression' && (parent.arguments as unknown[]).includes(nearest);
  const returns =
    nearest.body === node ||
    (isNode(nearest.body) && nearest.body.start <= node.start && nearest.type === 'ArrowFunctionExpression');
  return wraps && returns && functions.length === 1 ? 'wrapper' : 'function';
}

function isHandler(node: SyntaxNode, child: SyntaxNode | undefined): boolean {
  const named = (key: unknown) => /^(on|handle)[A-Z]/.test(nameOf(key) ?? '');
  if (node.type === 'JSXAttribute') return named(node.name);
  if (!child || !isFunction(child)) return false;
  if (node.type === 'VariableDeclarator') return named(node.id);
  return (node.type === 'Property' || node.type === 'ObjectProperty') && named(node.key);
}
