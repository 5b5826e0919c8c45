import path from 'node:path';
import { configFiles } from '../config-files.ts';
import { hasDependency } from '../entries/conventions.ts';
import type { PackageDescription } from '../entries/types.ts';
import { entriesOf, filesBelow } from '../files-below.ts';
import { textIfThere } from '../folder-files.ts';
import { nestsTooDeep } from '../nesting.ts';
import { parse } from '../script/parse.ts';
import { constantText, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import type { Provided, Unimported } from './unimported.ts';
import { USUAL_NAMES } from './usual-names.ts';

/** A line of the types that builds write of what they import by themselves: `ref: typeof import('vue')['ref']`. */
const STATED = /\b(\w{1,100})\s{0,9}:\s{0,9}typeof\s{1,9}import\((['"])([^'"\n]{1,300})\2\)\[(['"])(\w{1,100})\4\]/g;

/** Folders in which those types are usually written. */
const FOLDERS = ['', 'src', 'types', 'src/types', 'typings'];
/** The words by which a configuration calls what finds components, and what imports names. */
const FINDS_COMPONENTS = /[Cc]omponents\(/;
const FOLDER_OF_COMPONENTS = 'src/components';

/**
 * Names that the build of an app imports by itself: as the types say that it writes beside the app (`components.d.ts`, `auto-imports.d.ts`), else as its
 * configuration says: components of a folder by their files’ names, the usual names of packages (`imports: ['vue']`), and components of Vuetify as that describes them.
 * Undefined where it imports nothing by itself.
 */
export function unimportedNames(root: string, description: PackageDescription): Unimported | undefined {
  const found: Unimported = { names: {}, components: {} };
  const stated = FOLDERS.flatMap((folder) => statedIn(root, folder, found)).length > 0;
  const configured = configFiles(root).map((name) => [name, textIfThere(root, name) ?? ''] as const);
  if (hasDependency(description, 'vuetify') && configured.some(([, text]) => /\bvuetify\b/.test(text)))
    take(found.components, ofVuetify(root));
  if (!stated)
    for (const [name, text] of configured) {
      if (FINDS_COMPONENTS.test(text)) take(found.components, componentsBelow(root));
      if (text.includes('imports')) take(found.names, usualNames(name, text));
    }
  return Object.keys(found.names).length + Object.keys(found.components).length === 0 ? undefined : found;
}

function take(to: Record<string, Provided>, more: Record<string, Provided>): void {
  for (const [name, provided] of Object.entries(more)) to[name] ??= provided;
}

/** Takes what the types in a folder state; gives the files that state something. */
function statedIn(root: string, folder: string, to: Unimported): string[] {
  const files = entriesOf(path.join(root, folder)).filter((e) => e.isFile() && e.name.endsWith('.d.ts'));
  return files.flatMap(({ name }) => {
    const text = textIfThere(root, path.posix.join(folder, name));
    if (!text?.includes('typeof import(')) return [];
    const ofComponents = text.includes('GlobalComponents');
    const stated = [...text.matchAll(STATED)];
    for (const [, as, , from, , exported] of stated) {
      const at = from.startsWith('.') ? `/${path.posix.join(folder, from)}` : from;
      (ofComponents ? to.components : to.names)[as] ??= { from: at, name: exported };
    }
    return stated.length > 0 ? [name] : [];
  });
}

/** Components as Vuetify describes which file of it holds each (`importMap.json` of the package). */
function ofVuetify(root: string): Record<string, Provided> {
  const text = textIfThere(root, path.join(root, 'node_modules/vuetify/dist/json/importMap.json'));
  const { components = {} } = (text === null ? {} : JSON.parse(text)) as {
    components?: Record<string, { from: string }>;
  };
  return Object.fromEntries(
    Object.entries(components).map(([name, { from }]) => [
      name,
      { from: `vuetify/${from.replace(/\/index\.m?js$/, '')}`, name },
    ]),
  );
}

/** Components by the names of their files; of two that are called the same, the first. */
function componentsBelow(root: string): Record<string, Provided> {
  const found: Record<string, Provided> = {};
  for (const file of filesBelow(root, FOLDER_OF_COMPONENTS)) {
    const [, bare] = /([^/]+)\.(?:vue|tsx|jsx)$/.exec(file) ?? [];
    const own = bare === 'index' ? file.split('/').at(-2) : bare;
    if (own === undefined) continue;
    const name = own.replace(/(^|[-_.])(\w)/g, (_, __, letter: string) => letter.toUpperCase());
    found[name] ??= { from: `/${FOLDER_OF_COMPONENTS}/${file}`, name: 'default' };
  }
  return found;
}

/** The usual names of the packages that a configuration lists to be imported. */
function usualNames(file: string, text: string): Record<string, Provided> {
  const found: Record<string, Provided> = {};
  if (nestsTooDeep(text)) return found;
  walk(parse(file, text, { lang: 'ts' }).program(), (node) => {
    if (node.type !== 'Property' || nameOf(node.key) !== 'imports' || !isNode(node.value)) return;
    const listed = node.value.type === 'ArrayExpression' ? (node.value.elements as SyntaxNode[]) : [];
    for (const one of listed) for (const [name, from] of listedNames(one)) found[name] ??= { from, name };
  });
  return found;
}

/** `'vue'`, or `{ '@vueuse/core': ['useMouse'] }`. */
function listedNames(one: SyntaxNode): [name: string, from: string][] {
  const from = constantText(one);
  if (from !== null) return (USUAL_NAMES[from] ?? []).map((name) => [name, from]);
  if (!isNode(one) || one.type !== 'ObjectExpression') return [];
  return (one.properties as SyntaxNode[]).flatMap(({ key, value }) => {
    const of = nameOf(key) ?? constantText(key);
    const names = isNode(value) && value.type === 'ArrayExpression' ? (value.elements as SyntaxNode[]) : [];
    return of === null
      ? []
      : names.flatMap((n): [string, string][] => (constantText(n) === null ? [] : [[constantText(n)!, of]]));
  });
}
