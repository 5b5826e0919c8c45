import path from 'node:path';
import { wildcard } from '../core/text/wildcard.ts';
import { filesBelow } from './files-below.ts';
import type { FoundImport } from './found-import.ts';
import type { SourceText } from './source-text.ts';
import { constantText, isNode, nameOf, type SyntaxNode } from './syntax.ts';

/** Files that a module asks for by a pattern (`import.meta.glob`, `require.context`): conventions that several builds share. */
export interface FileGlob {
  /** Relative to the module, or from the folder that is read on with `/`; those that begin with `!` leave out. */
  patterns: string[];
  /** What the address from the module has to look like; null where patterns say all. */
  test: RegExp | null;
  /** Each import that it makes, but for its specifier. */
  found: Omit<FoundImport, 'specifier'>;
}

/** Reads such a call; null for any other one, or one whose patterns aren't constant. */
export function fileGlobOf(call: SyntaxNode, source: SourceText): FileGlob | null {
  const callee = call.callee as SyntaxNode;
  if (callee.type !== 'MemberExpression') return null;
  const given = call.arguments as SyntaxNode[];
  const found = (deferred: boolean): FileGlob['found'] => ({
    ...(deferred ? { kind: 'dynamic', context: 'function' } : { kind: 'static' }),
    ...{ names: ['*'], ...source.place(call.start), start: call.start, end: call.end },
  });
  const object = callee.object as SyntaxNode;
  const method = nameOf(callee.property);
  if (object.type === 'MetaProperty' && (method === 'glob' || method === 'globEager')) {
    const [first, options] = given;
    const texts =
      first?.type === 'ArrayExpression' ? (first.elements as unknown[]).map(constantText) : [constantText(first)];
    const patterns = texts.filter((t) => t !== null);
    return patterns.length < texts.length
      ? null
      : { patterns, test: null, found: found(method === 'glob' && !isTrue(options, 'eager')) };
  }
  if (nameOf(object) !== 'require' || method !== 'context') return null;
  const folder = constantText(given[0]);
  if (folder === null) return null;
  const deep = (given[1]?.value ?? true) !== false;
  const { regex } = (given[2] ?? {}) as { regex?: { pattern: string; flags: string } };
  const mode = constantText(given[3]) ?? 'sync';
  const test = regex ? safeTest(regex.pattern, regex.flags) : null;
  return { patterns: [`${folder}/${deep ? '**/' : ''}*`], test, found: found(mode.startsWith('lazy')) };
}

function isTrue(options: SyntaxNode | undefined, name: string): boolean {
  if (options?.type !== 'ObjectExpression') return false;
  return (options.properties as SyntaxNode[]).some(
    (p) => nameOf(p.key) === name && isNode(p.value) && p.value.value === true,
  );
}

/** An expression from the app's code, as long as no text can keep it busy: without repeated groups and back references. */
function safeTest(pattern: string, flags: string): RegExp | null {
  if (pattern.length > 200 || /\)[*+{]|\\\d|[*+}][*+]/.test(pattern)) return null;
  try {
    return new RegExp(pattern, flags.replace(/[gy]/g, ''));
  } catch {
    return null;
  }
}

/** The files that fit, as addresses from the module: in order, without the module itself. */
export function filesOfGlob(root: string, module: string, { patterns, test }: FileGlob): string[] {
  const inside = path.posix.dirname(module);
  const wholes = patterns.flatMap(alternatives).map((pattern) => {
    const out = pattern.startsWith('!');
    const plain = out ? pattern.slice(1) : pattern;
    return { out, whole: plain.startsWith('/') ? plain.slice(1) : path.posix.join(inside, plain) };
  });
  const tests = wholes.map(({ out, whole }) => ({ out, fits: wildcard(whole) }));
  const folders = wholes
    .filter((w) => !w.out)
    .map(({ whole }) => whole.slice(0, whole.search(/[*]|$/)).replace(/[^/]*$/, ''));
  const found = new Set<string>();
  for (const folder of new Set(folders.map((f) => f.replace(/\/$/, ''))))
    for (const file of filesBelow(root, folder)) {
      const whole = folder === '' ? file : `${folder}/${file}`;
      if (whole === module || tests.some((t) => t.out && t.fits(whole)) || !tests.some((t) => !t.out && t.fits(whole)))
        continue;
      const address = relativeTo(inside, whole);
      if (!test || test.test(address)) found.add(address);
    }
  return [...found].sort();
}

function relativeTo(folder: string, file: string): string {
  const relative = path.posix.relative(folder, file);
  return relative.startsWith('.') ? relative : `./${relative}`;
}

/** A pattern with `{a,b}` as several ones. */
function alternatives(pattern: string): string[] {
  const found = /\{([^{}]*)\}/.exec(pattern);
  if (!found) return [pattern];
  return found[1]
    .split(',')
    .slice(0, 50)
    .flatMap((choice) =>
      alternatives(pattern.slice(0, found.index) + choice + pattern.slice(found.index + found[0].length)),
    );
}
