import fs from 'node:fs';
import path from 'node:path';
import { describedIn } from '../described-in.ts';
import { hasDependency } from '../entries/conventions.ts';
import type { PackageDescription } from '../entries/types.ts';
import { textIfThere } from '../folder-files.ts';
import { nestsTooDeep } from '../nesting.ts';
import { constantText, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import type { Unimported } from '../unimported/unimported.ts';
import { unimportedNames } from '../unimported/unimported-names.ts';
import { toldToBuilds } from './environment.ts';
import { parse } from './parse.ts';

/** How the scripts of an app are compiled, as far as its configuration says. */
export interface Compiling {
  /** Where compiled markup gets its functions from. */
  jsxImportSource: string;
  /** Decorators are those of before the standard (an option of TypeScript and of compilers of markup). */
  oldDecorators?: true;
  /** Fields of classes are assigned in constructors, and those without a value are only types (TypeScript's form for targets before ES2022). */
  assignsFields?: true;
  /** What builds are told to put in place of what scripts ask of their environment, by name. */
  told?: Record<string, string>;
  /** What scripts and templates of the app use by name, whose imports the build writes. */
  unimported?: Unimported;
}

/** Libraries that markup in scripts may be compiled for. */
const MARKUP = ['react', 'preact', 'solid-js', 'vue'];

/** What is asked of configurations of TypeScript. */
const ASKED = /^(jsxImportSource|experimentalDecorators|useDefineForClassFields|target)$/;

/**
 * As the configuration of TypeScript says, with those that it builds on or refers to; markup else as the library that the app needs
 * has it. `bounds`: the folder whose files may be read.
 */
export function compilingOf(root: string, description: PackageDescription, bounds = root): Compiling {
  const said = new Map<string, unknown>();
  for (const name of ['tsconfig.json', 'jsconfig.json', 'tsconfig.app.json'])
    if (said.size === 0 && describedIn(root, name) !== null) take({ root, bounds }, path.join(root, name), said);
  const source = said.get('jsxImportSource');
  const jsxImportSource =
    typeof source === 'string' && source.length <= 200
      ? source
      : (MARKUP.find((name) => hasDependency(description, name)) ?? 'react');
  const told = toldToBuilds(root);
  const unimported = unimportedNames(root, description);
  const target = String(said.get('target') ?? '').toLowerCase();
  const defines =
    said.get('useDefineForClassFields') ?? (target === '' || /^es(2022|2023|2024|2025|next)$/.test(target));
  return {
    jsxImportSource,
    ...(said.get('experimentalDecorators') === true || saysOldDecorators(root) ? { oldDecorators: true } : {}),
    ...(defines ? {} : { assignsFields: true }),
    ...(Object.keys(told).length > 0 ? { told } : {}),
    ...(unimported ? { unimported } : {}),
  };
}

/** Takes what a configuration says that isn't said yet, then what those say that it builds on or refers to. */
function take(within: { root: string; bounds: string }, file: string, said: Map<string, unknown>, depth = 0): void {
  const text = depth < 5 ? textIfThere(within.bounds, file) : null;
  if (text === null || nestsTooDeep(text)) return;
  // Comments and commas at the end are allowed there, as in a script.
  const program = parse('config.js', `(${text}\n)`).program();
  const further: string[] = [];
  walk(program, (node, above) => {
    if (node.type !== 'Property' || !isNode(node.value)) return;
    const key = nameOf(node.key) ?? '';
    if (ASKED.test(key) && !said.has(key)) said.set(key, constantText(node.value) ?? (node.value as SyntaxNode).value);
    const isReference = key === 'path' && above.some((n) => n.type === 'Property' && nameOf(n.key) === 'references');
    if (key === 'extends' || isReference)
      walk(node.value, (n) => {
        const name = constantText(n);
        if (name !== null) further.push(name);
      });
  });
  for (const name of further.slice(0, 9)) {
    const near = /^[./]/.test(name)
      ? path.resolve(path.dirname(file), name)
      : path.join(within.root, 'node_modules', name);
    const there = [near, `${near}.json`, path.join(near, 'tsconfig.json')].find((f) => /\.json$/.test(f) && isFile(f));
    if (there !== undefined) take(within, there, said, depth + 1);
  }
}

function isFile(file: string): boolean {
  return fs.existsSync(file) && fs.statSync(file).isFile();
}

/** Files that configure a compiler of scripts for an app (its public convention). */
export const COMPILER_FILES = ['.babelrc', '.babelrc.json', 'babel.config.json', 'babel.config.js'];

/** Whether the configuration of a compiler of scripts asks for decorators of before the standard. */
function saysOldDecorators(root: string): boolean {
  return [...COMPILER_FILES, 'package.json'].some((name) => {
    const text = textIfThere(root, name);
    return text !== null && /proposal-decorators["'],[^\]]{0,80}legacy["']?\s{0,9}(?::\s{0,9}true|["'}])/.test(text);
  });
}
