import { InputError } from '../errors.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { Trigger } from '../vocabulary/triggers.ts';
import { parseTrigger, WRITTEN_TRIGGERS } from '../vocabulary/triggers.ts';

/**
 * Reads the written form of an import, `FROM::SPECIFIER` (or `…#1` for the second of the same specifier).
 * Gives its key; throws InputError when the snapshot has no such import, naming what the importer does import.
 */
export function parseImport(snapshot: Snapshot, text: string): string {
  const index = graphIndex(snapshot);
  if (index.importAt.has(text)) return text;
  const [from, specifier] = text.split('::');
  if (!from || !specifier) {
    throw new InputError('Not an import', 'Write it as FROM::SPECIFIER, for instance src/main.tsx::./app.', text);
  }
  const module = index.moduleAt.get(from);
  if (module === undefined) throw new InputError('No such module', `The snapshot has no module ${from}.`, text);
  const has: string[] = [];
  for (let e = index.outStart[module]; e < index.outStart[module + 1]; e++) {
    has.push(snapshot.imports[index.outgoing[e]].specifier);
  }
  throw new InputError(
    'No such import',
    `${from} doesn't import ${specifier}. It imports ${has.length ? [...new Set(has)].join(', ') : 'nothing'}.`,
    text,
  );
}

/** Reads when a split point is fetched, written TARGET@MOMENT as in `src/fares.tsx@approach` or `src/x.tsx@after:2000`. */
export function parseFetch(snapshot: Snapshot, text: string): { splitPoint: string; fetch: Trigger } {
  const at = text.lastIndexOf('@');
  const splitPoint = text.slice(0, at);
  if (at < 0 || !graphIndex(snapshot).moduleAt.has(splitPoint))
    throw new InputError('No such split point', 'Write PATH@MOMENT with the path of a module in the snapshot.', text);
  const fetch = parseTrigger(text.slice(at + 1));
  if (fetch) return { splitPoint, fetch };
  throw new InputError('No such moment', `Choose one of ${WRITTEN_TRIGGERS.join(', ')}.`, text);
}
