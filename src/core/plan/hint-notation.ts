import { InputError } from '../errors.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { HINT_KINDS, HINT_PLACES, type Hint, type HintTarget, isDocumentHint } from '../vocabulary/hints.ts';
import { parseTrigger } from '../vocabulary/triggers.ts';
import { HINT } from './hint-check.ts';

const OPTIONS = 'high, low, as=TYPE, crossorigin, plain, min=PX, max=PX, no-data-saver';

/**
 * Reads the written form of a hint, `KIND:TARGET@PLACE,OPTION…`. TARGET is the path of a split point's module, a route's
 * pattern, the address of an image, script or data call, or an origin (`https://cdn.example`). PLACE is `markup` (unless
 * said), `header`, `early`, or the moment at which a script adds it (`idle`, `approach`, `after:2000` …). Throws InputError
 * that says what is wrong with it.
 */
export function parseHint(snapshot: Snapshot, text: string, routes: string[] = []): Hint {
  const colon = text.indexOf(':');
  const kind = HINT_KINDS.find((k) => k === text.slice(0, colon));
  if (!kind) {
    throw new InputError(
      'Not a hint',
      `Write it as KIND:TARGET@PLACE, with KIND one of ${HINT_KINDS.join(', ')}.`,
      text,
    );
  }
  const { name, said } = apart(snapshot, text.slice(colon + 1), text);
  const [where = 'markup', ...options] = said;
  const target = parseTarget(snapshot, name, text);
  return HINT.check({ kind, target, routes, ...placeOf(kind, where, text), ...optionsOf(options, text) }, text);
}

/** Splits the target from what stands after the last `@` that begins a place. */
function apart(snapshot: Snapshot, rest: string, text: string): { name: string; said: string[] } {
  if (graphIndex(snapshot).moduleAt.has(rest)) return { name: rest, said: [] };
  const at = rest.lastIndexOf('@');
  const said = rest.slice(at + 1).split(',');
  if (at < 0) return { name: rest, said: [] };
  if (HINT_PLACES.some((p) => p === said[0]) || parseTrigger(said[0])) return { name: rest.slice(0, at), said };
  throw new InputError(
    'Unknown place',
    `The place of a hint is one of ${HINT_PLACES.filter((p) => p !== 'script').join(', ')}, or the moment at which a script adds it.`,
    text,
  );
}

function placeOf(kind: Hint['kind'], where: string, text: string): Partial<Hint> {
  const on = parseTrigger(where);
  if (on) return { place: isDocumentHint(kind) ? 'markup' : 'script', on };
  const place = HINT_PLACES.find((p) => p === where);
  if (place && place !== 'script') return { place };
  throw new InputError('Unknown place', 'Name the moment at which the script adds it, such as idle.', text);
}

function optionsOf(options: string[], text: string): Record<string, unknown> {
  const out: Record<string, unknown> = {};
  const media: Record<string, number> = {};
  for (const option of options) {
    const [name, value = ''] = option.split('=');
    if (name === 'high' || name === 'low') out.priority = name;
    else if (name === 'as') out.as = value;
    else if (name === 'crossorigin') out.crossorigin = true;
    else if (name === 'plain') out.crossorigin = false;
    else if (name === 'no-data-saver') out.notForDataSaver = true;
    else if (name === 'min' || name === 'max') media[`${name}Width`] = Number(value);
    else throw new InputError('Unknown option of a hint', `${option} is none of ${OPTIONS}.`, text);
  }
  return Object.keys(media).length > 0 ? { ...out, media } : out;
}

function parseTarget(snapshot: Snapshot, name: string, text: string): HintTarget {
  if (graphIndex(snapshot).moduleAt.has(name)) return { kind: 'split point', module: name };
  if (snapshot.routes.some((r) => r.pattern === name)) return { kind: 'route', pattern: name };
  const addresses = [
    ...snapshot.routes.flatMap((r) => [...r.content, ...(r.fonts ?? []), ...r.data]),
    ...snapshot.scripts,
  ].map((item) => item.address);
  if (addresses.includes(name)) return { kind: 'asset', address: name };
  if (/^https?:\/\/[^/]+$/.test(name)) return { kind: 'origin', origin: name };
  throw new InputError(
    'Hint without a target',
    `${name} is no module, route, content address or origin of this snapshot.`,
    text,
  );
}
