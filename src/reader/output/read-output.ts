import { InputError } from '../../core/errors.ts';
import type { AppNotes } from '../../core/formats/app-notes.ts';
import type { Entry } from '../../core/snapshot/module-types.ts';
import type { BuiltOutput, BuiltStart } from '../../core/snapshot/output-types.ts';
import type { Route } from '../../core/snapshot/route-types.ts';
import type { Failed, Notice, Snapshot, StyleRule } from '../../core/snapshot/types.ts';
import { FreeNames } from '../../core/text/free-names.ts';
import { annotate } from '../app-notes.ts';
import { proposeContent } from '../data/propose-data.ts';
import { documentExtras } from '../document-extras.ts';
import { filesBelow } from '../files-below.ts';
import type { ReadProgress } from '../graph/source-graph.ts';
import { sayMessages } from '../messages/say-messages.ts';
import type { DrawnRoute } from '../parts/find-parts.ts';
import type { Reading } from '../read-source.ts';
import { findRoutes } from '../routes/find-routes.ts';
import { addTemplates, Mentions, unusedRules } from '../unused-rules.ts';
import { type AskedFiles, askedFiles } from './asked-files.ts';
import { fileOf, type OutputDocument, outputDocuments, proposeBase, strayAddresses } from './documents.ts';
import { NamedFiles } from './named-files.ts';
import { noticesOf } from './notices.ts';
import { type OutputFile, type ReadFile, readOutputFile } from './output-files.ts';
import { OutputModules } from './output-modules.ts';

/**
 * Reads a production output: its documents, the files that they ask for, and what the files' source maps tell of
 * their inside. The real files are the baseline. InputError when no document asks for a file of the folder; a broken
 * map, an address that leads nowhere or a file that nobody names are listed in the snapshot.
 */
export function readOutput(
  root: string,
  name: string,
  notes: AppNotes,
  progress: ReadProgress = () => {},
  givenBase?: string,
): Omit<Reading, 'ms'> {
  const all = filesBelow(root);
  const present = new Set(all);
  const documents = outputDocuments(root, all);
  const base = givenBase ?? proposeBase(documents, present);
  const asked = askedByDocuments(documents, base, present, name);
  const failed: Failed[] = [];
  const files = readFiles(root, all, asked, failed, progress);
  const inside = new OutputModules(files);
  const output = builtOutput(files, inside, documents, base, present);
  const entries = output.starts.map((start, at): Entry => {
    const document = documents.at(at)?.path ?? null;
    const modules = inside.startsOf(closure(output, start));
    return { realm: start.realm, kind: document === null ? 'worker' : 'document', document, modules };
  });
  const isForeign = ({ address }: { address: string }) =>
    documents.every((d) => fileOf(address, d.path, base, present) === null);
  const extras = documents.map((d) =>
    documentExtras(root, d.path, d.realm, { ...d.html, tags: d.html.tags.filter(isForeign) }, notes),
  );
  const snapshot: Snapshot = {
    name,
    origin: 'output',
    modules: inside.modules,
    imports: inside.imports,
    packages: inside.packages,
    entries,
    routes: documents.flatMap((d, at) => routesOf(d, entries[at], inside, notes, failed)),
    proposals: [],
    scripts: onlyOnce(extras.flatMap((e) => e.scripts)),
    links: extras.flatMap((e) => e.links).map((l) => ({ ...l, bytes: l.bytes ?? sizeAt(files, base, l.address) })),
    base,
    unresolved: inside.unresolved,
    failed: [...inside.failed, ...failed, ...extras.flatMap((e) => e.failed)],
    notices: [
      ...strayAddresses(documents, base, present),
      ...noticesOf(files, present),
      ...unnamed(output, inside, base, documents),
    ],
    unusedRules: unusedIn(root, files),
    sheetUses: [],
    output,
  };
  sayMessages(snapshot.routes, root);
  return { snapshot, texts: inside.texts, sources: {} };
}

/** The files of the folder that documents ask for; InputError where there is none. */
function askedByDocuments(
  documents: OutputDocument[],
  base: string,
  present: ReadonlySet<string>,
  name: string,
): string[] {
  const asked = documents.flatMap((d) => d.html.tags.flatMap((t) => fileOf(t.address, d.path, base, present) ?? []));
  if (asked.length > 0) return asked;
  throw new InputError(
    'No documents',
    documents.length === 0
      ? 'A production output needs HTML files that ask for its scripts. Name the folder that is deployed.'
      : `The HTML files ask for no file of this folder under the base address ${base}. Name the folder that is deployed, or another base address.`,
    name,
  );
}

/** The files as they lie in the folder, and what starts from documents, in their order, then workers. */
function builtOutput(
  files: OutputFile[],
  inside: OutputModules,
  documents: OutputDocument[],
  base: string,
  present: ReadonlySet<string>,
): BuiltOutput {
  const numbered = new Map(files.map((f, at) => [f.path, at]));
  const workers = files.flatMap((f) =>
    f.asked.workers.map(({ to, besides }) => [to, ...besides].flatMap((path) => numbered.get(path) ?? [])),
  );
  return {
    files: files.map((file, f) => ({
      path: file.path,
      kind: file.kind,
      bytes: file.bytes,
      inside: inside.knowledge[f],
      modules: inside.inside[f],
      contents: inside.knowledge[f] === 'names' ? contentsOf(file) : [],
      imports: file.asked.imports.flatMap(({ to, kind, line, besides }) =>
        [to, ...besides].flatMap((one, at) => {
          const target = numbered.get(one);
          return target === undefined ? [] : [{ to: target, kind: at === 0 ? kind : ('dynamic' as const), line }];
        }),
      ),
    })),
    starts: [...documents.map((d) => startOf(d, base, present, numbered)), ...workerStarts(workers, files)],
  };
}

/** What starts each worker; several that begin with the same script, and take in others, are told apart by a number. */
function workerStarts(started: number[][], files: OutputFile[]): BuiltStart[] {
  const once = new Map(started.map((list) => [list.join(' '), list]));
  const names = new FreeNames();
  return [...once.values()].map((list) => ({
    realm: names.give(`worker ${files[list[0]].path}`, (n) => `worker ${files[list[0]].path} ${n}`),
    tags: list.map((file, offset) => ({ file, placement: 'module', offset })),
  }));
}

/**
 * Scripts and styles, with their maps, in the folders from which documents ask for files; from other folders of the
 * output, and of JSON files, those that scripts ask for.
 */
function readFiles(
  root: string,
  all: string[],
  asked: string[],
  failed: Failed[],
  progress: ReadProgress,
): OutputFile[] {
  const tops = new Set(asked.map(topOf));
  const known = new Set(all.filter((f) => /\.(m?js|css)$/.test(f) && (tops.has(topOf(f)) || asked.includes(f))));
  const byName = new NamedFiles(all.filter((f) => /\.(m?js|css|json)$/.test(f)));
  const read = new Map<string, ReadFile>();
  const asks = new Map<string, AskedFiles>();
  while (read.size < known.size) {
    for (const file of known) {
      if (read.has(file)) continue;
      read.set(file, readOutputFile(root, file, failed));
      progress(read.size, known.size);
    }
    const namers = [...read.values()].flatMap((f) => f.script?.namers ?? []);
    const workerScripts = new Set(
      [...read.values()].flatMap((f) => (f.script?.takesInScripts && !asked.includes(f.path) ? [f.path] : [])),
    );
    for (const { path, script } of read.values()) {
      const found = script ? askedFiles(script, namers, byName, workerScripts) : { imports: [], workers: [] };
      asks.set(path, found);
      for (const { to, besides } of found.imports) for (const file of [to, ...besides]) known.add(file);
      for (const { to, besides } of found.workers) for (const file of [to, ...besides]) known.add(file);
    }
  }
  return [...read.values()]
    .sort((a, b) => (a.path < b.path ? -1 : 1))
    .map(({ script: _, ...file }) => ({ ...file, asked: asks.get(file.path)! }));
}

/** The outermost folder of a file; files that lie in none stand together. */
function topOf(file: string): string {
  const at = file.indexOf('/');
  return at < 0 ? '' : file.slice(0, at);
}

function startOf(
  { path, realm, html }: OutputDocument,
  base: string,
  present: ReadonlySet<string>,
  numbered: ReadonlyMap<string, number>,
): BuiltStart {
  const tags = html.tags.flatMap((tag): BuiltStart['tags'] => {
    const file = numbered.get(fileOf(tag.address, path, base, present) ?? '');
    if (file === undefined) return [];
    const placement = tag.kind === 'style' ? 'style' : tag.placement === 'end of body' ? 'blocking' : tag.placement;
    return [{ file, placement, offset: tag.offset }];
  });
  return { realm, tags };
}

function closure({ files }: BuiltOutput, { tags }: BuiltStart): Set<number> {
  const all = new Set(tags.map((t) => t.file));
  for (const f of all) for (const { to, kind } of files[f].imports) if (kind === 'static') all.add(to);
  return all;
}

/** Routes that a table in the sources names; else the document itself is one. */
function routesOf(
  { pattern, path, html, bytes }: OutputDocument,
  entry: Entry,
  inside: OutputModules,
  notes: AppNotes,
  failed: Failed[],
): Route[] {
  const own = entry.modules.filter((m) => inside.drawing(m)?.package === null);
  const page = own.at(-1) ?? entry.modules.at(-1);
  if (page === undefined) return [];
  const rendering = html.drawn ? ('server' as const) : ('client' as const);
  const sized = (route: Route): Route =>
    (notes.routes.get(route.pattern)?.document ?? notes.defaults.document)
      ? route
      : { ...route, document: { ...route.document, bytes } };
  // A page of its own per document needs no table; one document for all is what tables are for.
  const tables = pattern === '/' ? findRoutes(inside.routeModules(entry.realm)) : { routes: [], failed: [] };
  const drawn = inside.drawn([entry], new Set(tables.routes.map((r) => r.page)));
  const content = (r: Pick<DrawnRoute, 'layouts' | 'page' | 'components'>) =>
    proposeContent({ ...r, realm: entry.realm }, drawn, () => null);
  if (tables.routes.length > 0 && !html.drawn) {
    failed.push(...tables.failed);
    return tables.routes.map(({ components, ...r }) =>
      sized(annotate({ ...r, rendering, ...content({ ...r, components }) }, notes)),
    );
  }
  const layouts = own.filter((m) => m !== page);
  const route = { pattern, realm: entry.realm, layouts: [], page, evidence: { path, line: 1 }, rendering };
  return [sized(annotate({ ...route, ...content({ layouts, page }) }, notes))];
}

function unusedIn(root: string, files: OutputFile[]): StyleRule[] {
  const mentions = new Mentions();
  for (const { kind, text } of files) if (kind === 'script') mentions.add(text);
  addTemplates(root, mentions);
  return unusedRules(
    files.filter((f) => f.kind === 'style'),
    mentions,
  );
}

function contentsOf(file: OutputFile): { source: string; bytes: number }[] {
  return file.map!.sources.map(({ source, bytes }) => ({ source, bytes })).sort((a, b) => b.bytes - a.bytes);
}

/** Files whose name stands nowhere and whose modules nothing imports. */
function unnamed(output: BuiltOutput, inside: OutputModules, base: string, documents: OutputDocument[]): Notice[] {
  const old = new Set(documents.flatMap((d) => d.html.forOldBrowsers));
  const named = new Set(output.starts.flatMap((s) => [...closure(output, s)]));
  for (const f of named) for (const { to } of output.files[f].imports) named.add(to);
  const imported = new Set(inside.imports.map((i) => i.to));
  return output.files.flatMap((file, f): Notice[] => {
    if (named.has(f) || old.has(base + file.path) || file.modules.some((m) => imported.has(m.module))) return [];
    const message = 'is named by no document and no other file; it is in no start, and nothing tells when it is loaded';
    return [{ kind: 'unnamed file', path: file.path, message }];
  });
}

/** One script that several documents name is one script. */
function onlyOnce<T extends { address: string; id: string }>(scripts: T[]): T[] {
  const seen = new Set<string>();
  return scripts.filter((s) => {
    const key = s.address || s.id;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

function sizeAt(files: OutputFile[], base: string, address: string): number | null {
  return files.find((f) => `${base}${f.path}` === address)?.bytes.gzip ?? null;
}
