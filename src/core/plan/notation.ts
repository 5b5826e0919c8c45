import { InputError } from '../errors.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { Hint, HintKind, HintPlace, HintTarget, Trigger } from './types.ts';

const KINDS: readonly HintKind[] = ['preload', 'modulepreload', 'prefetch', 'preconnect'];
const PLACES: readonly HintPlace[] = ['markup', 'header', 'early'];

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
  const [moment, ms] = text.slice(at + 1).split(':');
  if (at < 0 || !graphIndex(snapshot).moduleAt.has(splitPoint))
    throw new InputError('No such split point', 'Write PATH@MOMENT with the path of a module in the snapshot.', text);
  const simple = FETCH_MOMENTS.find((m) => m === moment);
  if (simple && ms === undefined) return { splitPoint, fetch: { on: simple } };
  if (moment === 'after' && /^\d+$/.test(ms ?? '')) return { splitPoint, fetch: { on: 'after', ms: Number(ms) } };
  throw new InputError('No such moment', `Choose one of ${FETCH_MOMENTS.join(', ')}, after:MS.`, text);
}

const FETCH_MOMENTS = ['at once', 'after first paint', 'idle', 'visible', 'approach', 'action'] as const;

/**
 * Reads the written form of a hint, `KIND:TARGET@PLACE`. TARGET is the path of a split point's module, a route's
 * pattern, the address of an image or data call, or an origin (`https://cdn.example`). PLACE defaults to `markup`.
 */
export function parseHint(snapshot: Snapshot, text: string, routes: string[] = []): Hint {
  const colon = text.indexOf(':');
  const kind = text.slice(0, colon) as HintKind;
  if (colon < 0 || !KINDS.includes(kind)) {
    throw new InputError('Not a hint', `Write it as KIND:TARGET@PLACE, with KIND one of ${KINDS.join(', ')}.`, text);
  }
  const rest = text.slice(colon + 1);
  const at = PLACES.map((p) => `@${p}`).find((p) => rest.endsWith(p));
  const name = at ? rest.slice(0, -at.length) : rest;
  if (!at && /@[a-z]+$/.test(rest) && !graphIndex(snapshot).moduleAt.has(rest)) {
    throw new InputError('Unknown place', `The place of a hint is one of ${PLACES.join(', ')}.`, text);
  }
  return { kind, target: parseTarget(snapshot, name, text), place: (at?.slice(1) as HintPlace) ?? 'markup', routes };
}

function parseTarget(snapshot: Snapshot, name: string, text: string): HintTarget {
  if (graphIndex(snapshot).moduleAt.has(name)) return { kind: 'split point', module: name };
  if (snapshot.routes.some((r) => r.pattern === name)) return { kind: 'route', pattern: name };
  if (snapshot.routes.some((r) => [...r.content, ...r.data].some((c) => c.address === name))) {
    return { kind: 'asset', address: name };
  }
  if (/^https?:\/\/[^/]+$/.test(name)) return { kind: 'origin', origin: name };
  throw new InputError(
    'Hint without a target',
    `${name} is no module, route, content address or origin of this snapshot.`,
    text,
  );
}
