import fs from 'node:fs';
import path from 'node:path';
import { InputError } from '../core/errors.ts';
import { type DirectoryRoute, directoryRoutes } from './directory-routes.ts';
import { type HtmlScript, readHtml, realmOf } from './html-entry.ts';

export interface FoundEntry {
  realm: string;
  document: string | null;
  starts: { address: string; line: number; kind: 'script' | 'style' }[];
  classic: HtmlScript[];
  /** Routes that folders stand for, where the app has no document of its own. */
  routes: DirectoryRoute[];
}

const USUAL = ['main', 'index', 'app', 'client', 'entry'].flatMap((name) =>
  ['tsx', 'ts', 'jsx', 'js', 'mjs'].flatMap((extension) => [`src/${name}.${extension}`, `${name}.${extension}`]),
);

/** Finds what starts an app: HTML files with scripts, else the described or usual entry module. */
export function findEntries(root: string, description: { main?: unknown; module?: unknown }): FoundEntry[] {
  const html = htmlFiles(root).map((file) => fromHtml(root, file));
  const started = html.filter((e) => e.starts.length > 0);
  if (started.length > 0) return started;
  const routes = directoryRoutes(root);
  if (routes.length > 0)
    return [{ realm: 'site', document: null, starts: directoryStarts(routes), classic: [], routes }];
  const named = [description.module, description.main].filter((m): m is string => typeof m === 'string');
  const file = [...named, ...USUAL].find(
    (f) => fs.existsSync(path.join(root, f)) && fs.statSync(path.join(root, f)).isFile(),
  );
  if (file)
    return [
      {
        realm: 'site',
        document: null,
        starts: [{ address: `/${file}`, line: 1, kind: 'script' }],
        classic: [],
        routes: [],
      },
    ];
  throw hasSources(root)
    ? new InputError(
        'No entry',
        `There are sources, but no HTML file with a module script and none of ${USUAL.slice(0, 4).join(', ')} …`,
        path.basename(root),
      )
    : new InputError(
        'No sources',
        'The folder has no HTML, script or style files. Name the folder that holds package.json or index.html.',
        path.basename(root),
      );
}

function fromHtml(root: string, file: string): FoundEntry {
  const { modules, styles, classic } = readHtml(fs.readFileSync(path.join(root, file), 'utf8'));
  return {
    realm: realmOf(file),
    document: file,
    starts: [
      ...styles.filter((s) => !/^(https?:)?\/\//.test(s.address)).map((s) => ({ ...s, kind: 'style' as const })),
      ...modules.map((m) => ({ ...m, kind: 'script' as const })),
    ],
    classic,
    routes: [],
  };
}

/** What every route starts with: the layouts around all of them. */
function directoryStarts(routes: DirectoryRoute[]): FoundEntry['starts'] {
  const [first, ...others] = routes;
  const common = first.layouts.filter((l) => others.every((r) => r.layouts.includes(l)));
  return common.map((l) => ({ address: `/${l}`, line: 1, kind: 'script' }));
}

/** HTML files at the top and one folder down. */
function htmlFiles(root: string): string[] {
  const files: string[] = [];
  for (const entry of fs.readdirSync(root, { withFileTypes: true })) {
    if (entry.isFile() && /\.html?$/.test(entry.name)) files.push(entry.name);
    if (!entry.isDirectory() || entry.name.startsWith('.') || entry.name === 'node_modules') continue;
    for (const inner of fs.readdirSync(path.join(root, entry.name))) {
      if (/\.html?$/.test(inner)) files.push(`${entry.name}/${inner}`);
    }
  }
  return files.sort();
}

function hasSources(folder: string, depth = 0): boolean {
  if (depth > 6) return false;
  for (const entry of fs.readdirSync(folder, { withFileTypes: true })) {
    if (entry.name.startsWith('.') || entry.name === 'node_modules') continue;
    if (entry.isFile() && /\.([mc]?[jt]sx?|css|html?)$/.test(entry.name)) return true;
    if (entry.isDirectory() && hasSources(path.join(folder, entry.name), depth + 1)) return true;
  }
  return false;
}
