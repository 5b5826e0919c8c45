import fs from 'node:fs';
import path from 'node:path';
import { InputError } from '../core/errors.ts';
import { parseJson } from '../core/formats/project-file.ts';
import type { ClassicScript, Entry, Failed, Snapshot, Unresolved } from '../core/snapshot/types.ts';
import { type AppNotes, annotate, NO_NOTES, NOTES_FILE, parseNotes } from './app-notes.ts';
import { findEntries } from './find-entries.ts';
import { proposeParts } from './find-parts.ts';
import { findRoutes } from './find-routes.ts';
import { type ReadProgress, SourceGraph } from './source-graph.ts';

export interface Reading {
  snapshot: Snapshot;
  /** Minified text per module path. */
  texts: Record<string, string>;
  ms: number;
}

/**
 * Reads an app's source tree, from its HTML files (or entry modules) over all imports. Never runs its code and never
 * leaves the folder. A module with a syntax error, an import that leads nowhere or a route without a page are listed
 * in the snapshot; InputError only when there is nothing to read or the notes are broken.
 */
export function readSource(folder: string, progress: ReadProgress = () => {}): Reading {
  const began = performance.now();
  const root = realFolder(folder);
  const notes = readNotes(root);
  const description = packageDescription(root);
  const found = findEntries(root, description);
  const byFolders = found.flatMap((e) => e.routes.map((r) => ({ ...r, realm: e.realm })));
  const graph = new SourceGraph(root, jsxSource(root), progress, byFolders.length > 0);
  const entries: Entry[] = [];
  const failed: Failed[] = [];
  const unresolved: Unresolved[] = [];
  for (const entry of found) {
    const modules: string[] = [];
    for (const { address, line, kind } of entry.starts) {
      const module = graph.start(address, kind);
      if ('reason' in module)
        unresolved.push({ from: entry.document ?? entry.realm, specifier: address, line, reason: module.reason });
      else modules.push(module.path);
    }
    entries.push({ realm: entry.realm, kind: 'document', document: entry.document, modules });
    for (const { page, layouts } of entry.routes)
      for (const file of [...layouts, page]) graph.start(`/${file}`, 'script');
    graph.follow(entry.realm);
  }
  for (const worker of graph.workers)
    entries.push({ realm: `worker ${worker}`, kind: 'worker', document: null, modules: [worker] });

  const tables = findRoutes(graph.tables());
  const proposed = (r: { layouts: string[]; page: string }) => proposeParts(r, (path) => graph.drawing(path));
  const routes = [
    ...tables.routes.map((r) => annotate({ ...r, rendering: 'client', parts: proposed(r) }, notes)),
    ...byFolders.map((r) =>
      annotate({ ...r, rendering: 'server', evidence: { path: r.page, line: 1 }, parts: proposed(r) }, notes),
    ),
  ];
  for (const pattern of notes.routes.keys()) {
    if (routes.some((r) => r.pattern === pattern)) continue;
    const known = routes.map((r) => r.pattern).join(', ') || 'none';
    failed.push({
      path: NOTES_FILE,
      line: 1,
      message: `routes["${pattern}"] names a route that no table has (found: ${known})`,
    });
  }
  const built = graph.finish();
  const snapshot: Snapshot = {
    name: typeof description.name === 'string' ? description.name : path.basename(root),
    origin: 'source',
    modules: built.modules,
    imports: built.imports,
    packages: built.packages,
    entries,
    routes,
    scripts: found.flatMap((e) => e.classic.map((s) => classicScript(root, s, notes, e.document, failed))),
    unresolved: [...unresolved, ...built.unresolved],
    failed: [...built.failed, ...tables.failed, ...failed],
  };
  return { snapshot, texts: built.texts, ms: performance.now() - began };
}

function realFolder(folder: string): string {
  let root: string;
  try {
    root = fs.realpathSync(folder);
  } catch {
    throw new InputError('No such folder', 'Check the path; it must name a folder on this machine.', folder);
  }
  if (!fs.statSync(root).isDirectory())
    throw new InputError('Not a folder', 'Name the folder that holds the app, not a file in it.', folder);
  return root;
}

function readNotes(root: string): AppNotes {
  const file = path.join(root, NOTES_FILE);
  return fs.existsSync(file) ? parseNotes(fs.readFileSync(file, 'utf8')) : NO_NOTES;
}

function packageDescription(root: string): { name?: unknown; main?: unknown; module?: unknown } {
  const file = path.join(root, 'package.json');
  if (!fs.existsSync(file)) return {};
  return parseJson(fs.readFileSync(file, 'utf8'), 'package.json') as { name?: unknown };
}

/** Where compiled markup gets its functions from, as the TypeScript configuration says. */
function jsxSource(root: string): string {
  const file = path.join(root, 'tsconfig.json');
  if (!fs.existsSync(file)) return 'react';
  return /"jsxImportSource"\s*:\s*"([^"]+)"/.exec(fs.readFileSync(file, 'utf8'))?.[1] ?? 'react';
}

function classicScript(
  root: string,
  script: { id: string; address: string; placement: ClassicScript['placement']; line: number },
  notes: AppNotes,
  document: string | null,
  failed: Failed[],
): ClassicScript {
  const known = notes.scripts.get(script.id) ?? {};
  const local = path.join(root, script.address);
  const size = !/^(https?:)?\/\//.test(script.address) && fs.existsSync(local) ? fs.statSync(local).size : undefined;
  if (known.bytes === undefined && size === undefined) {
    const message = `the size of the script ${script.address} isn't known; give scripts["${script.id}"].bytes in ${NOTES_FILE}`;
    failed.push({ path: document ?? '', line: script.line, message });
  }
  return {
    id: script.id,
    name: known.name ?? script.id,
    address: script.address,
    bytes: known.bytes ?? size ?? 0,
    serverMs: known.serverMs ?? 20,
    evaluationMs: known.evaluationMs ?? 0,
    placement: script.placement,
    evidence: document === null ? null : { path: document, line: script.line },
  };
}
