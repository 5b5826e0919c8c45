import type { Import } from '../core/snapshot/module-types.ts';
import { shortName } from '../core/text/short-name.ts';
import { constantText, type SyntaxNode, walk } from '../reader/syntax.ts';
import { type Found, type PatchContext, targetOf } from './context.ts';
import type { FileEdits } from './file-edits.ts';
import { deferredComponents } from './wrapper.ts';

/** `() => import('./x')`, with the name that is taken from it where that isn't its default. */
const LOADER =
  /^\(\)\s*=>\s*import\([^()]*\)(?:\.then\(\s*\(?(\w+)\)?\s*=>\s*\(\{\s*default:\s*\1\.(\w+),?\s*\}\)\s*\))?$/;
const ASYNC_LOADER = /^async\s*\(\)\s*=>\s*\(\{\s*default:\s*\(\s*await\s+import\([^()]*\)\s*\)\.(\w+),?\s*\}\)$/;

/** What a loader takes from its module; null for a function that does something else. */
function takenBy(loader: string): string | null {
  const plain = LOADER.exec(loader);
  return plain ? (plain[2] ?? 'default') : (ASYNC_LOADER.exec(loader)?.[1] ?? null);
}

/** How a deferred import becomes a static one: the change of its file, or why that can't be done safely. */
export function join(context: PatchContext, edits: FileEdits, item: Import): Found {
  const { file, out } = edits;
  let node: SyntaxNode | null = null;
  let around: readonly SyntaxNode[] = [];
  walk(file.program, (n, above) => {
    if (n.type !== 'ImportExpression' || n.start !== item.start || n.end !== item.end) return;
    node = n;
    around = [...above];
  });
  if (!node) return { reason: 'the file has no deferred import at that place' };
  const expression: SyntaxNode = node;
  if (constantText(expression.source) === null)
    return { reason: 'its address is computed, so that it leads to several modules' };
  const from = file.quoted(item.specifier);

  const component = deferredComponents(file).find((c) => c.call.start < item.start && item.end < c.call.end);
  const named = component && takenBy(file.of((component.call.arguments as SyntaxNode[])[0]));
  if (
    component &&
    named &&
    component.statement.type === 'VariableDeclaration' &&
    (component.call.arguments as unknown[]).length === 1
  ) {
    const { local } = component;
    return {
      change: () => {
        const names = named === 'default' ? local : `{ ${named === local ? local : `${named} as ${local}`} }`;
        edits.import(`import ${names} from ${from};`);
        edits.drop(component.statement);
        edits.release(component.by);
      },
      done: `${local} is imported at the top`,
    };
  }
  const name = freeName(edits, targetOf(context, item));
  const waiting = around.at(-1)?.type === 'AwaitExpression' ? around.at(-1)! : null;
  return {
    change: () => {
      edits.import(`import * as ${name} from ${from};`);
      if (waiting) out.overwrite(waiting.start, waiting.end, name);
      else out.overwrite(expression.start, expression.end, `Promise.resolve(${name})`);
    },
    done: `imported at the top as ${name}`,
  };
}

/** A name for a whole module that means nothing else in the file. */
function freeName({ file }: FileEdits, path: string): string {
  const words = shortName(path)
    .replace(/\.\w+$/, '')
    .split(/[^A-Za-z0-9]+/)
    .filter((w) => w !== '');
  const camel = words.map((w, i) => (i === 0 ? w[0].toLowerCase() : w[0].toUpperCase()) + w.slice(1)).join('');
  const base = /^[a-z]/.test(camel) ? camel : `module${camel}`;
  for (let n = 1; ; n++) {
    const name = n === 1 ? base : n === 2 ? `${base}Module` : `${base}Module${n}`;
    if (!file.knows(name)) return name;
  }
}
