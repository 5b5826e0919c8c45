import fs from 'node:fs';
import path from 'node:path';
import { entriesOf } from '../files-below.ts';
import { textIfThere } from '../folder-files.ts';
import { parse } from '../script/parse.ts';

const MOST_READ = 3000;
const LARGEST = 300_000;
const MOST_OFFERED = 6;
const DEEPEST = 3;
const MOST_APPS = 40;

/** Folders below that hold a package of their own which is an app, as paths from the folder. */
export function appsBelow(root: string, isApp: (folder: string) => boolean): string[] {
  const found: string[] = [];
  const walk = (folder: string, depth: number) => {
    for (const entry of entriesOf(path.join(root, folder))) {
      if (!entry.isDirectory() || entry.name.startsWith('.') || entry.name === 'node_modules') continue;
      const inside = folder === '' ? entry.name : `${folder}/${entry.name}`;
      const full = path.join(root, inside);
      const isPackage = fs.existsSync(path.join(full, 'package.json'));
      if (isPackage && found.length < MOST_APPS && isApp(full)) found.push(inside);
      else if (depth < DEEPEST) walk(inside, depth + 1);
    }
  };
  walk('', 1);
  return found.sort();
}

/**
 * Scripts that no other one imports, those first that lead to most others: what starts an app is imported by nobody. Tests, configurations
 * and stories are none. Imports by relative address are followed, which is enough to tell.
 */
export function likelyStarts(root: string, sources: readonly string[]): string[] {
  const scripts = sources.filter(
    (f) => /\.([mc]?[jt]sx?|vue|svelte)$/.test(f) && !/\.d\.[mc]?ts$|\.(test|spec|stories|config)\.|(^|\/)__/.test(f),
  );
  const read = scripts.slice(0, MOST_READ);
  const known = new Set(scripts);
  const leads = new Map(read.map((file) => [file, importedBy(root, file, known)]));
  const imported = new Set([...leads].flatMap(([file, to]) => to.filter((t) => t !== file)));
  const reach = (file: string) => {
    const all = new Set([file]);
    for (const one of all) for (const to of leads.get(one) ?? []) all.add(to);
    return all.size;
  };
  return read
    .filter((f) => !imported.has(f))
    .map((file) => ({ file, reach: reach(file) }))
    .filter(({ reach: n }) => n > 1)
    .sort((a, b) => b.reach - a.reach || (a.file < b.file ? -1 : 1))
    .slice(0, MOST_OFFERED)
    .map(({ file }) => file);
}

function importedBy(root: string, file: string, known: ReadonlySet<string>): string[] {
  const { size } = fs.statSync(path.join(root, file));
  const text = size > LARGEST ? null : textIfThere(root, file);
  if (text === null) return [];
  const isComponent = /\.(vue|svelte)$/.test(file);
  const scripts = isComponent ? [...text.matchAll(/<script\b[^>]*>([\s\S]*?)<\/script/g)].map((s) => s[1]) : [text];
  return scripts.flatMap((script) => {
    const { module } = parse(isComponent ? `${file}.ts` : file, script);
    const named = [
      ...module.staticImports.map((i) => i.moduleRequest.value),
      ...module.staticExports.flatMap((e) => e.entries.flatMap((x) => x.moduleRequest?.value ?? [])),
      ...module.dynamicImports.map((i) => script.slice(i.moduleRequest.start + 1, i.moduleRequest.end - 1)),
    ];
    return named.flatMap((specifier) => meant(file, specifier, known) ?? []);
  });
}

const ENDINGS = [
  '',
  '.tsx',
  '.ts',
  '.jsx',
  '.js',
  '.mjs',
  '.vue',
  '.svelte',
  '/index.tsx',
  '/index.ts',
  '/index.jsx',
  '/index.js',
];

function meant(from: string, specifier: string, known: ReadonlySet<string>): string | null {
  if (!specifier.startsWith('.')) return null;
  const target = path.posix.join(path.posix.dirname(from), specifier);
  const bases = [target, target.replace(/\.[mc]?jsx?$/, '')];
  for (const base of bases) for (const ending of ENDINGS) if (known.has(base + ending)) return base + ending;
  return null;
}
