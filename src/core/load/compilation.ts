import { has } from '../chunks/bits.ts';
import type { PlannedApp } from '../chunks/planned.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { Drawing } from './drawing.ts';
import type { Files } from './files.ts';
import { chunkOf, type LandedRoot, type Landing, type LandingWalk } from './landing.ts';
import type { LandingHints } from './landing-hints.ts';
import type { ScreenPart } from './types.ts';

/** A landing whose files and parts are known, before its hints are decided. */
export interface Uncompiled extends PlannedApp {
  walk: LandingWalk;
  landing: Landing;
  files: Files;
  parts: ScreenPart[];
  /** The price of what the document draws, with the landing's parts drawn. */
  drawing: Drawing;
}

/** What writing the document of a landing works on. */
export interface Compilation extends Uncompiled {
  hints: LandingHints;
}

/** A page runs after the layouts of its chain, though they travel at the same time; not after those that it asks for. */
export function addGroups(landing: Landing, graph: ChunkGraph, files: Files, page: string, snapshot: Snapshot): void {
  const pageModule = graphIndex(snapshot).moduleAt.get(page);
  const pageRoot = landing.roots.find(
    (l) => l.inChain && l.root !== landing.entry && graph.roots[l.root].target[0] === pageModule,
  );
  const before: number[] = [];
  for (const landed of landing.roots) {
    if (landed === pageRoot) continue;
    const group = files.root(landed, []);
    if (landed.inChain && !(pageRoot && leadsTo(graph, landing, pageRoot, landed))) before.push(group);
  }
  if (pageRoot) files.root(pageRoot, before);
}

/** Whether one root is asked for because of another one's code, at any remove. */
function leadsTo(graph: ChunkGraph, landing: Landing, cause: LandedRoot, landed: LandedRoot): boolean {
  const seen = new Set<LandedRoot>();
  for (let at: LandedRoot | undefined = landed; at && !seen.has(at); ) {
    seen.add(at);
    const asker: number = at.askedBy;
    if (asker < 0) return false;
    at = landing.roots.find((l) => has(graph.roots[l.root].reach, asker));
    if (at === cause) return true;
  }
  return false;
}

/** Index of the script file in which the landing finds a module; for a style, the script that asks for its group; −1 without one. */
export function fileOf(snapshot: Snapshot, graph: ChunkGraph, landing: Landing, files: Files, module: number): number {
  if (snapshot.modules[module].kind === 'style')
    return files.groups[files.groupOf(landing.entry)]?.resources.at(-1) ?? -1;
  const chunk = chunkOf(graph, landing.roots, module);
  return chunk < 0 ? -1 : files.chunk(chunk, 'later');
}
