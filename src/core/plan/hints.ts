import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { whyNotHinted } from '../text/address.ts';
import { shortName } from '../text/short-name.ts';
import type { Hint, HintKind, HintTarget } from '../vocabulary/hints.ts';
import { HINTS, isDocumentHint, PLACES } from '../vocabulary/hints.ts';
import { triggerWords } from '../vocabulary/triggers.ts';

/** What a hint is about: its kind, aim, place and routes. Its priority and conditions can be changed in place. */
export function hintSubject({ kind, target, place, on, routes }: Hint): string {
  const where = place === 'script' || on ? `${place} ${on ? triggerWords(on) : ''}`.trim() : place;
  return `hint ${kind} ${targetName(target)} ${where} ${[...routes].sort().join(' ')}`;
}

/** What a hint aims at, in full: a path, a pattern, an address or an origin. */
export function targetName(target: HintTarget): string {
  switch (target.kind) {
    case 'split point':
      return target.module;
    case 'route':
      return target.pattern;
    case 'asset':
      return target.address;
    case 'origin':
      return target.origin;
  }
}

/** What a hint aims at, as short as it can be told: a file's name, a route, the end of an address, a host. */
export function shortTarget(target: HintTarget): string {
  switch (target.kind) {
    case 'split point':
      return shortName(target.module);
    case 'route':
      return target.pattern;
    case 'asset':
      return target.address
        .replace(/^https?:\/\//, '')
        .split('/')
        .slice(-2)
        .filter((s) => s !== '')
        .join('/');
    case 'origin':
      return target.origin.replace(/^https?:\/\//, '');
  }
}

/** A hint in words, as in `preload fares in the markup`. */
export function hintWords(hint: Hint): string {
  const { kind, target, priority, media, notForDataSaver } = hint;
  const name = shortTarget(target);
  const { minWidth, maxWidth } = media ?? {};
  const beside = [
    ...(priority && kind !== 'fetch priority' ? [`${priority} priority`] : []),
    ...(minWidth === undefined ? [] : [`from ${minWidth} px wide`]),
    ...(maxWidth === undefined ? [] : [`up to ${maxWidth} px wide`]),
    ...(notForDataSaver ? ['not for data savers'] : []),
  ];
  const what =
    kind === 'fetch priority' ? `${priority} fetch priority for ${name}` : `${kind} ${name} ${whereWords(hint)}`;
  return [what, ...beside].join(', ');
}

function whereWords({ kind, place, on }: Hint): string {
  if (isDocumentHint(kind)) return on?.on === 'approach' ? 'on hover or focus' : 'at once';
  if (place !== 'script') return PLACES[place];
  return on?.on === 'approach' ? 'on hover or focus' : `${PLACES.script}, ${on ? triggerWords(on) : 'at once'}`;
}

/** Why a hint can't do anything in this app, in words; null where it can. */
export function hintTrouble(snapshot: Snapshot, hint: Hint, deferred: Uint8Array): string | null {
  const { kind, target, routes } = hint;
  const missing = routes.find((r) => !snapshot.routes.some((s) => s.pattern === r));
  if (missing !== undefined) return `no route ${missing} in this snapshot`;
  const fits: readonly HintTarget['kind'][] = HINTS[kind].targets;
  if (!fits.includes(target.kind)) return `${kind} takes ${fits.join(' or ')}, not ${target.kind}`;
  switch (target.kind) {
    case 'split point':
      return splitPointTrouble(snapshot, target.module, deferred);
    case 'route':
      return snapshot.routes.some((r) => r.pattern === target.pattern)
        ? null
        : `no route ${target.pattern} in this snapshot`;
    case 'asset':
      return assetTrouble(snapshot, kind, target.address);
    case 'origin':
      return null;
  }
}

function splitPointTrouble(snapshot: Snapshot, path: string, deferred: Uint8Array): string | null {
  const index = graphIndex(snapshot);
  const module = index.moduleAt.get(path);
  if (module === undefined) return `no module ${path} in this snapshot`;
  if (snapshot.routes.some((r) => r.page === path || r.layouts.includes(path))) return null;
  for (let e = index.inStart[module]; e < index.inStart[module + 1]; e++) if (deferred[index.incoming[e]]) return null;
  return `${path} is no split point any more: nothing defers it under this plan`;
}

function assetTrouble(snapshot: Snapshot, kind: HintKind, address: string): string | null {
  const never = whyNotHinted(address);
  if (never !== null) return `${address} can’t be hinted: ${never}`;
  const known = snapshot.routes.some((r) =>
    [...r.content, ...(r.fonts ?? []), ...r.data].some((c) => c.address === address),
  );
  if (kind === 'fetch priority') {
    const tagged =
      snapshot.scripts.some((s) => s.address === address) ||
      snapshot.routes.some((r) => r.content.some((c) => c.address === address && c.foundIn === 'document'));
    return tagged ? null : `no document of this snapshot has a tag for ${address}`;
  }
  return known || snapshot.scripts.some((s) => s.address === address)
    ? null
    : `nothing in this snapshot asks for ${address}`;
}
