import type { DeferredContext } from '../../core/snapshot/module-types.ts';
import { fileGlobOf } from '../file-globs.ts';
import type { SourceText } from '../source-text.ts';
import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { importComments } from './import-comments.ts';
import type { ParsedScript } from './parsed-script.ts';
import { takenNames } from './taken-names.ts';

/** Notes what a script asks for by calls: deferred imports, requires, workers, files by address or by pattern. */
export function collectCalls(program: SyntaxNode, source: SourceText, result: ParsedScript): void {
  walk(program, (node, above) => {
    if (node.type === 'ImportExpression') {
      const specifier = constantText(node.source);
      const place = source.place(node.start);
      const { isLeftAlone, ...said } = importComments(source.text, node);
      if (isLeftAlone) {
        const written = specifier ?? source.text.slice(node.start, Math.min(node.end, node.start + 80));
        const reason = 'a comment leaves it to the browser';
        result.unclear.push({ specifier: written, line: place.line, reason, leftOut: true });
        return;
      }
      const glob = specifier === null ? globOf(node.source) : null;
      if (glob) {
        const context = contextOf(node, above);
        result.globs.push({
          ...glob,
          found: {
            kind: 'dynamic',
            specifier: `${glob.prefix}*${glob.suffix}`,
            names: ['*'],
            context,
            ...said,
            ...place,
            start: node.start,
            end: node.end,
          },
        });
        return;
      }
      if (specifier === null) {
        const written = source.text.slice(node.start, Math.min(node.end, node.start + 80));
        const reason = 'the address is not a constant';
        result.unclear.push({ specifier: written, line: place.line, reason, leftOut: false });
        return;
      }
      const context = contextOf(node, above);
      const waits = context === 'module' && above.at(-1)?.type === 'AwaitExpression';
      const taken = takenNames(above);
      result.imports.push({
        kind: 'dynamic',
        specifier,
        names: ['*'],
        context,
        ...(waits ? { awaited: true } : {}),
        ...(taken ? { taken } : {}),
        ...said,
        ...place,
        start: node.start,
        end: node.end,
      });
    } else if (node.type === 'CallExpression' && nameOf(node.callee) === 'require') {
      const specifier = constantText((node.arguments as unknown[])[0]);
      if (specifier !== null) {
        result.imports.push({
          kind: 'static',
          specifier,
          names: ['*'],
          required: true,
          ...source.place(node.start),
          start: node.start,
          end: node.end,
        });
      }
    } else if (node.type === 'CallExpression') {
      const glob = fileGlobOf(node, source);
      if (glob) result.fileGlobs.push(glob);
    } else if (node.type === 'NewExpression' && nameOf(node.callee) === 'URL') {
      const [first, base] = node.arguments as SyntaxNode[];
      const address = constantText(first);
      // An address is relative, with a dot at its beginning or without.
      const specifier = address !== null && /^[\w@-][^:]*$/.test(address) ? `./${address}` : address;
      if (specifier === null || !base || !source.text.slice(base.start, base.end).includes('import.meta.url')) return;
      const { line } = source.place(node.start);
      const parent = above[above.length - 1];
      if (parent?.type === 'NewExpression' && /Worker$/.test(calledName(parent)))
        result.workers.push({ specifier, line });
      else result.assets.push({ specifier, line, start: node.start, end: node.end });
    }
  });
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
