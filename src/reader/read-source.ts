import fs from 'node:fs';
import path from 'node:path';
import { InputError } from '../core/errors.ts';
import { type AppNotes, NO_NOTES, NOTES_FILE, parseNotes } from '../core/formats/app-notes.ts';
import { checkBase } from '../core/snapshot/base.ts';
import type { Entry, Package } from '../core/snapshot/module-types.ts';
import type { CorrectedRoute, Route, RouteProposal } from '../core/snapshot/route-types.ts';
import type { Failed, Snapshot, Unresolved } from '../core/snapshot/types.ts';
import { configuredAliases } from './aliases.ts';
import { routesOf } from './app-routes.ts';
import { caughtImports } from './caught.ts';
import { describedIn, packageDescription } from './described-in.ts';
import { documentExtras } from './document-extras.ts';
import { hasDependency } from './entries/conventions.ts';
import { describedEntries } from './entries/described.ts';
import { findEntries } from './entries/find-entries.ts';
import { givenEntries } from './entries/given.ts';
import type { FoundEntry, FoundStart, PackageDescription } from './entries/types.ts';
import { type ReadProgress, SourceGraph } from './graph/source-graph.ts';
import { foresee } from './memory/memory.ts';
import { sayMessages } from './messages/say-messages.ts';
import { withActParts } from './parts/act-parts.ts';
import { drawsOf } from './parts/draws.ts';
import { addMadePieces } from './parts/made-pieces.ts';
import { frameOf } from './parts/shells.ts';
import { type Built, frameWritten } from './parts/written-frame.ts';
import { keptPlaceholders } from './placeholders.ts';
import { addFormats } from './runs/formats.ts';
import { FunctionsOf } from './runs/functions-of.ts';
import { compilingOf } from './script/compiling.ts';
import { SheetUsers } from './sheet-users.ts';
import { addTemplates, Mentions, unusedRules } from './unused-rules.ts';
import { beginStep, goOn } from './watch.ts';

export interface Reading {
  snapshot: Snapshot;
  /** Minified text per module path. */
  texts: Record<string, string>;
  /** Source text of the app's own scripts by path, for edits that are handed over. */
  sources: Record<string, string>;
  ms: number;
}

export interface SourceOptions {
  progress?: ReadProgress;
  /** The folder around the app whose files may be read too: a workspace with packages that the app uses. */
  workspace?: string;
  /** Files of the folder that start the app, in place of those that would be found. */
  starts?: readonly string[];
  /** Routes that a person corrected: parts are proposed for them as they are by that, too. */
  corrected?: readonly CorrectedRoute[];
}

/**
 * Reads an app's source tree, from its HTML files (or entry modules) over all imports. Never runs its code and never
 * leaves the folder. A module with a syntax error, an import that leads nowhere or a route without a page are listed
 * in the snapshot; InputError only when there is nothing to read or the notes are broken.
 */
export function readSource(
  folder: string,
  { progress = () => {}, workspace, starts = [], corrected = [] }: SourceOptions = {},
): Reading {
  const began = performance.now();
  const root = realFolder(folder);
  const bounds = workspace === undefined ? root : workspaceOf(root, workspace);
  const notes = readNotes(root);
  const description = packageDescription(root);
  const found = entriesFor(root, { starts, notes, description });
  const byFolders = found.flatMap((e) => e.routes.map((r) => ({ ...r, realm: e.realm, rendering: e.rendering })));
  const importMap = new Map(found.flatMap((e) => [...(e.html?.imports ?? [])]));
  const aliases = new Map([...found.flatMap((e) => [...(e.aliases ?? [])]), ...configuredAliases(root)]);
  const filledIn = found.flatMap((e) => e.filledIn ?? []);
  const systems = AS_WRITTEN.flatMap((s) => (hasDependency(description, s.package) ? [s.condition] : []));
  const resolving = { root, bounds, importMap, aliases, filledIn, systems };
  const graph = new SourceGraph(resolving, compilingOf(root, description, bounds), progress);
  const failed: Failed[] = [];
  const unresolved: Unresolved[] = [];
  const entries = found.map((entry) => startOf(entry, graph, unresolved));
  const described = describedPages(notes, found[0].realm, graph, failed);
  readCorrected(corrected, found, graph);
  entries.push(...workerEntries(graph));

  const extras = found.flatMap((e) =>
    e.html && e.document ? [documentExtras(root, e.document, e.realm, e.html, notes)] : [],
  );
  foresee((by) => by.sheets(graph.sheets.map((s) => s.text)));
  graph.settle();
  beginStep('finding routes and parts');
  const app = routesOf({ root, found, byFolders, entries, described, graph, notes, corrected });
  const { routes } = app;
  const built = graph.finish([...routes, ...app.corrected].flatMap((r) => [...r.layouts, r.page]));
  beginStep('looking at who draws what');
  const { moduleAt } = graph.drawn();
  const from = entries.flatMap((e) => e.modules);
  const caught = caughtImports({ ...built, routes, starts: from, moduleAt, files: Object.keys(built.texts) });
  for (const at of caught) built.imports[at].caught = true;
  addDrawn(built, entries, app);
  const snapshot: Snapshot = {
    name: appName(root),
    origin: 'source',
    modules: built.modules,
    imports: built.imports,
    packages: built.packages,
    entries,
    routes,
    proposals: [],
    scripts: extras.flatMap((e) => e.scripts),
    links: extras.flatMap((e) => e.links),
    base: baseOf(found, failed),
    unresolved: [...unresolved, ...built.unresolved],
    failed: [...built.failed, ...app.failed, ...extras.flatMap((e) => e.failed), ...failed],
    notices: built.notices,
    ...usesOfStyles(root, graph.sheets, built),
    ...placeholdersOf(notes, built.packages, found),
    ...(notes.visitors ? { visitors: notes.visitors } : {}),
    output: null,
  };
  addDear(snapshot, built.texts);
  complete(snapshot, app.corrected, (of) => withActParts(of, built.acts, ({ pattern }) => saysParts(notes, pattern)));
  sayMessages([...snapshot.routes, ...snapshot.proposals], root);
  return { snapshot, texts: built.texts, sources: built.sources, ms: performance.now() - began };
}

/** Adds what is only known of routes once all of the app is, to those that it has and to those that corrections may take. */
function complete(snapshot: Snapshot, corrected: Route[], completed: (of: Snapshot) => Route[]): void {
  const proposals = completed({ ...snapshot, routes: corrected }).map(proposalOf);
  Object.assign(snapshot, { routes: completed(snapshot), proposals });
}

function proposalOf({ realm, pattern, page, layouts, content, data, parts, pageAfter }: Route): RouteProposal {
  return { realm, pattern, page, layouts, content, data, parts, ...(pageAfter ? { pageAfter } : {}) };
}

/** Workers start by themselves, with nothing there. */
function workerEntries({ workers }: SourceGraph): Entry[] {
  return [...workers].map(([worker, startedBy]) => ({
    ...{ realm: `worker ${worker}`, kind: 'worker', document: null, modules: [worker] },
    startedBy: [...startedBy],
  }));
}

/** What starts the app: the files that a person named, else those of the notes, else what is found. */
function entriesFor(
  root: string,
  { starts, notes, description }: { starts: readonly string[]; notes: AppNotes; description: PackageDescription },
): FoundEntry[] {
  if (starts.length > 0) return givenEntries(root, starts);
  return notes.entries.length > 0 ? describedEntries(root, notes) : findEntries(root, description);
}

/** Starts an entry in the graph, with the routes that its folders are, and reads all that it leads to. */
function startOf(found: FoundEntry, graph: SourceGraph, unresolved: Unresolved[]): Entry {
  const { realm, document, ships, components } = found;
  if (components) graph.takeComponents(components);
  if (found.bringsAlong) graph.bringAlong(found.bringsAlong);
  if (found.autoImports) graph.takeAutoImports(found.autoImports);
  const begin = (start: FoundStart) => {
    const module = graph.start(start);
    // What the framework itself starts ships as it is.
    if ('path' in module && ships === 'what is marked' && !module.path.includes('node_modules/'))
      graph.keepOnServer(module.path);
    return module;
  };
  const modules = found.starts.flatMap((start) => {
    const module = begin(start);
    if ('path' in module) return [module.path];
    unresolved.push({ from: document ?? realm, specifier: start.address, line: start.line, ...module });
    return [];
  });
  for (const { page, layouts, beside } of found.routes)
    for (const file of [...layouts, page, ...beside]) {
      begin({ address: `/${file}`, kind: 'script', line: 1 });
      if (typeof ships === 'object') graph.shipWithout(file, ships.without);
    }
  graph.follow(realm);
  for (const { page, beside } of found.routes) for (const file of beside) graph.attach(page, file);
  return { realm, kind: 'document', document, modules };
}

/** Reads the pages and layouts that notes give to routes; gives the patterns of those whose files are all there, and lists the others. */
function describedPages({ routes }: AppNotes, realm: string, graph: SourceGraph, failed: Failed[]): Set<string> {
  const there = new Set<string>();
  for (const [pattern, { page, layouts = [] }] of routes) {
    if (page === undefined) continue;
    const lost = [...layouts, page].filter((file) => 'reason' in graph.start({ address: `/${file}`, kind: 'script' }));
    if (lost.length === 0) there.add(pattern);
    const message = `routes["${pattern}"] is left out: ${lost.join(', ')} can’t be found in the folder`;
    if (lost.length > 0) failed.push({ path: NOTES_FILE, line: 1, message });
  }
  graph.follow(realm);
  return there;
}

/** Says of modules what they draw of others, and of entries what stands around their routes. */
function addDrawn(
  built: Built,
  entries: readonly Entry[],
  { drawn: app, routes }: Pick<ReturnType<typeof routesOf>, 'drawn' | 'routes'>,
): void {
  const { modules } = built;
  for (const entry of entries) {
    if (entry.kind !== 'document') continue;
    const frame = frameOf(app.shells(entry.realm), app) ?? frameWritten(entry, built, app);
    if (frame !== null) entry.frame = frame;
  }
  letFramesShow(routes, entries);
  const at = new Map(modules.map((m, i) => [m.path, i]));
  for (const [i, module] of modules.entries()) {
    goOn('what modules draw', i);
    if (module.package !== null) continue;
    const draws = [...drawsOf(module.path, app)].flatMap(([path, { times, rows, filled }]) => {
      const drawn = at.get(path);
      const later = { ...(rows > 0 ? { rows } : {}), ...(filled > 0 ? { filled } : {}) };
      return drawn === undefined ? [] : [{ module: drawn, times, ...later }];
    });
    if (draws.length > 0) module.draws = draws.sort((a, b) => a.module - b.module);
  }
}

/** What stands around the router doesn't wait for what that needs. */
function letFramesShow(routes: readonly Route[], entries: readonly Entry[]): void {
  for (const route of routes) {
    const frame = entries.find((e) => e.realm === route.realm)?.frame;
    if (frame !== undefined && !route.layouts.includes(frame)) delete route.shellWaits;
  }
}

/** Says of modules what running or drawing them takes that neither their size nor their markup tells. */
function addDear(snapshot: Snapshot, texts: Readonly<Record<string, string>>): void {
  beginStep('what running and drawing takes');
  const functions = new FunctionsOf(texts);
  addFormats(snapshot, texts, functions);
  addMadePieces(snapshot, functions);
}

/** Reads the modules of corrected routes, whether or not anything else leads to them; what isn’t there is left as it is. */
function readCorrected(corrected: readonly CorrectedRoute[], found: readonly FoundEntry[], graph: SourceGraph): void {
  for (const { realm } of found) {
    const own = corrected.filter((r) => r.realm === realm);
    for (const file of own.flatMap((r) => [...(r.layouts ?? []), ...(r.page === undefined ? [] : [r.page])]))
      graph.start({ address: `/${file}`, kind: 'script' });
    if (own.length > 0) graph.follow(realm);
  }
}

export function realFolder(folder: string): string {
  let root: string;
  try {
    root = fs.realpathSync(folder);
  } catch {
    throw new InputError('No such folder', 'Check the path; it must name a folder on this machine.', folder);
  }
  if (!fs.statSync(root).isDirectory())
    throw new InputError('Not a folder', 'Name the folder that holds the app, not a file in it.', folder);
  try {
    fs.readdirSync(root);
  } catch {
    throw new InputError('Folder can’t be read', 'Give the account that runs Yokeline the right to read it.', folder);
  }
  return root;
}

/** The workspace's real folder. Throws InputError for one that isn't around the app. */
export function workspaceOf(root: string, folder: string): string {
  const workspace = realFolder(path.resolve(root, folder));
  if (root === workspace || root.startsWith(workspace + path.sep)) return workspace;
  throw new InputError('Not the workspace of this app', 'Name a folder that holds the app’s folder.', folder);
}

/** Whether notes tell the parts of a route: whoever tells some of them tells all. */
function saysParts({ defaults, routes }: AppNotes, pattern: string): boolean {
  return (routes.get(pattern)?.parts ?? defaults.parts) !== undefined;
}

export function readNotes(root: string): AppNotes {
  const text = describedIn(root, NOTES_FILE);
  return text === null ? NO_NOTES : parseNotes(text);
}

/** The described name of an app, else its folder's. */
export function appName(root: string): string {
  const { name } = packageDescription(root);
  return typeof name === 'string' ? name : path.basename(root);
}

/** Component systems whose packages ship components as they are written, and the condition of exports under which they do (their conventions). */
const AS_WRITTEN = [
  { package: 'svelte', condition: 'svelte' },
  { package: 'solid-js', condition: 'solid' },
];

/** How long placeholders stay, as the notes say, else as the installed component system has it. */
function placeholdersOf(
  { placeholders }: AppNotes,
  packages: readonly Package[],
  entries: readonly FoundEntry[],
): Pick<Snapshot, 'placeholders'> {
  const broughtBy = entries.find((e) => e.drawnWith !== undefined)?.drawnWith ?? null;
  const found = placeholders ?? keptPlaceholders(packages, broughtBy);
  return found ? { placeholders: found } : {};
}

/** Rules whose names neither the shipped scripts nor documents and templates in the folder mention; and which scripts use which sheets. */
function usesOfStyles(
  root: string,
  sheets: SourceGraph['sheets'],
  built: ReturnType<SourceGraph['finish']>,
): Pick<Snapshot, 'unusedRules' | 'sheetUses'> {
  if (sheets.length === 0) return { unusedRules: [], sheetUses: [] };
  const mentions = new Mentions();
  const users = new SheetUsers(sheets);
  for (const [i, { path, kind }] of built.modules.entries()) {
    goOn('what scripts mention', i);
    if (kind === 'style') continue;
    const mentioned = mentions.add(built.texts[path]);
    if (kind === 'script') users.add(path, mentioned);
  }
  addTemplates(root, mentions);
  const there = new Set(built.modules.map((m) => m.path));
  const shipped = sheets.filter((s) => there.has(s.path));
  return { unusedRules: unusedRules(shipped, mentions), sheetUses: users.uses() };
}

/** The base address that the documents name; `/` when they name none or one that can't be. */
function baseOf(entries: FoundEntry[], failed: Failed[]): string {
  for (const { html, document } of entries) {
    if (!html?.base) continue;
    try {
      return checkBase(html.base, `${document}: base`);
    } catch (error) {
      failed.push({
        path: document ?? '',
        line: 1,
        message: `the base address ${html.base} is left aside: ${(error as Error).message}`,
      });
    }
  }
  return '/';
}
