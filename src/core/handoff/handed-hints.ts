import type { PlannedApp } from '../chunks/planned.ts';
import { addressOfChunk } from '../load/files.ts';
import { Addresses } from './addresses.ts';
import { headTags } from './markup.ts';
import { plannedLinks } from './planned-links.ts';
import { hintScript } from './script.ts';

/** The tags that a plan adds to the head of a route's document in a production output: before its other tags, and after them. */
export function handedTags(app: PlannedApp, pattern: string): { first: string; last: string } {
  const own = plannedLinks(app, new Addresses(app.snapshot, app.graph, null)).filter((r) => r.pattern === pattern);
  const tags = own.map(headTags);
  return { first: tags.flatMap((t) => t.first).join('\n'), last: tags.flatMap((t) => t.last).join('\n') };
}

/** A module script that gives the hints of one route that only script can give, with the addresses that predictions use; empty without any. */
export function handedHints(app: PlannedApp, pattern: string): string {
  const { snapshot, graph } = app;
  const files = Object.fromEntries(
    graph.chunks.flatMap((chunk) => {
      const file = addressOfChunk(chunk, snapshot.base).slice(snapshot.base.length);
      return chunk.modules.map((m) => [snapshot.modules[m].path, file]);
    }),
  );
  const own = plannedLinks(app, new Addresses(snapshot, graph, files)).filter((r) => r.pattern === pattern);
  const script = hintScript(own);
  return script === '' ? '' : `${script}\nhints[${JSON.stringify(pattern)}]?.();\n`;
}
