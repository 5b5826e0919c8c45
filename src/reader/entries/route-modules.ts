import fs from 'node:fs';
import path from 'node:path';
import { filesBelow } from '../files-below.ts';
import { textIfThere } from '../folder-files.ts';
import type { DirectoryRoute } from '../routes/directory-routes.ts';
import { findRoutes } from '../routes/find-routes.ts';
import type { RouteModule } from '../routes/names.ts';
import { parseScript } from '../script/parse-script.ts';
import { hasDependency } from './conventions.ts';
import type { FoundEntry, PackageDescription } from './types.ts';

const SCRIPT = /\.(tsx|jsx|ts|js|mdx)$/;
/** Exports of route modules that only run on the server. */
const SERVER_EXPORTS = ['loader', 'action', 'headers', 'middleware'];
const FRAMEWORKS = ['@react-router/dev', '@remix-run/dev', '@remix-run/react'];

/**
 * Apps of route modules: those that `app/routes.ts` lists, or files below `app/routes` by their names (public conventions of React
 * Router's framework mode and of Remix). `app/root` stands around all of them.
 */
export function routeModuleEntries(root: string, description: PackageDescription): FoundEntry[] {
  if (!FRAMEWORKS.some((name) => hasDependency(description, name))) return [];
  const frame = oneOf(root, 'app/root');
  if (frame === null) return [];
  const table = oneOf(root, 'app/routes');
  const text = table === null ? null : textIfThere(root, table);
  const listed = table === null || text === null ? [] : listedRoutes(root, table, text);
  const byName = listed.length > 0 ? [] : flatRoutes(root);
  const routes = [...listed, ...byName].map((r) => ({ ...r, layouts: [frame, ...r.layouts] }));
  const starts = [oneOf(root, 'app/entry.client'), frame].filter((f) => f !== null);
  return [
    {
      ...{ realm: 'site', document: null, html: null, rendering: 'server', routes },
      starts: starts.map((f) => ({ address: `/${f}`, line: 1, kind: 'script' })),
      ships: { without: SERVER_EXPORTS },
    },
  ];
}

function oneOf(root: string, name: string): string | null {
  const extension = ['tsx', 'ts', 'jsx', 'js'].find((e) => fs.existsSync(path.join(root, `${name}.${e}`)));
  return extension ? `${name}.${extension}` : null;
}

/** Routes as a list of `route()`, `index()` and `layout()` calls names them; files are named from the list's folder. */
function listedRoutes(root: string, table: string, text: string): DirectoryRoute[] {
  const { routes } = parseScript(table, text, { jsxImportSource: 'react' });
  const files = filesBelow(root, 'app').filter((f) => SCRIPT.test(f));
  const resolved = new Map(files.flatMap((f) => [f, `./${f}`].map((name) => [name, `app/${f}`] as const)));
  const bare = { realm: 'site', reexports: null, elements: [], package: null };
  const modules: RouteModule[] = [
    { ...bare, path: table, sheet: routes, resolved },
    ...files.map((f) => ({ ...bare, path: `app/${f}`, sheet: null, resolved: new Map<string, string>() })),
  ];
  return findRoutes(modules.filter((m, i) => i === 0 || m.path !== table)).routes.map(({ pattern, layouts, page }) => ({
    ...{ pattern, layouts, page, beside: [] },
  }));
}

interface FlatFile {
  file: string;
  /** Names between dots, as written. */
  names: string[];
}

/** Routes by file names: dots part segments, `$id` is a variable, `_name` stands around without showing, `_index` is the page of what is above. */
function flatRoutes(root: string): DirectoryRoute[] {
  const files: FlatFile[] = filesBelow(root, 'app/routes').flatMap((f): FlatFile[] => {
    if (!SCRIPT.test(f)) return [];
    const [first, inner] = f.split('/');
    // In a folder only `route` is a route module.
    if (inner !== undefined && !/^(route|index)\.\w+$/.test(f.slice(first.length + 1))) return [];
    const name = inner === undefined ? f.replace(SCRIPT, '') : first;
    return [{ file: `app/routes/${f}`, names: namesOf(name) }];
  });
  const isAround = (outer: FlatFile, inner: FlatFile) =>
    outer !== inner && outer.names.length < inner.names.length && outer.names.every((n, i) => n === inner.names[i]);
  return files
    .filter((f) => !files.some((other) => isAround(f, other)) && !isOnlyFrame(f))
    .map((f) => ({
      pattern: patternOf(f.names),
      layouts: files
        .filter((o) => isAround(o, f))
        .sort((a, b) => a.names.length - b.names.length)
        .map((o) => o.file),
      page: f.file,
      beside: [],
    }))
    .sort((a, b) => (a.pattern < b.pattern ? -1 : 1));
}

/** Parts a name at its dots; what stands in brackets is taken as it is. */
function namesOf(name: string): string[] {
  return name.replace(/\[([^\]]*)\]/g, (_, inner: string) => inner.replaceAll('.', '\u0000')).split('.');
}

function isOnlyFrame({ names }: FlatFile): boolean {
  const last = names[names.length - 1];
  return last.startsWith('_') && last !== '_index';
}

function patternOf(names: readonly string[]): string {
  const shown = names.filter((n) => !n.startsWith('_')).map((n) => n.replace(/_$/, '').replaceAll('\u0000', '.'));
  const segments = shown.map((n) => (n === '$' ? '*' : n.replace(/^\((.*)\)$/, '$1').replace(/^\$/, ':')));
  return `/${segments.join('/')}`;
}
