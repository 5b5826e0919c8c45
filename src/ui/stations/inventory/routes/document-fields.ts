import type { Route } from '../../../../core/snapshot/route-types.ts';

type Document = Route['document'];

export const REDIRECTS_HOW =
  'Give the time at the server of each in ms, with its origin where that is another one: 30, https://go.example 20';
export const FLUSHES_HOW =
  'Give what is sent by when, each later and larger than the one before: 4 kB at 0 ms, 20 kB at 600 ms';

/** Redirects as a person writes them: `30, https://go.example 20`. */
export function redirectsText({ redirects = [] }: Document): string {
  return redirects.map(({ origin, serverMs }) => (origin === '' ? `${serverMs}` : `${origin} ${serverMs}`)).join(', ');
}

/** What such a text says; null where it says nothing that can be. */
export function redirectsOf(text: string): NonNullable<Document['redirects']> | null {
  const all = pieces(text).map((piece) => {
    const found = /^(?:(https?:\/\/[^/\s]+)\s+)?(\d+(?:\.\d+)?)(?:\s*ms)?$/.exec(piece);
    return found && { origin: found[1] ?? '', serverMs: Number(found[2]) };
  });
  return all.every((r) => r !== null) ? all : null;
}

/** Pieces of a streamed document as a person writes them: `4 kB at 0 ms, 20 kB at 600 ms`. */
export function flushesText({ flushes = [] }: Document): string {
  return flushes.map(({ upTo, atMs }) => `${upTo / 1000} kB at ${atMs} ms`).join(', ');
}

/** What such a text says; null where it says nothing that can be. */
export function flushesOf(text: string): NonNullable<Document['flushes']> | null {
  const all = pieces(text).map((piece) => {
    const found = /^(\d+(?:\.\d+)?)\s*(?:kB)?\s+at\s+(\d+(?:\.\d+)?)\s*(?:ms)?$/i.exec(piece);
    return found && { upTo: Math.round(Number(found[1]) * 1000), atMs: Number(found[2]) };
  });
  const isGrowing = all.every(
    (f, at) => f && (at === 0 || (f.upTo > all[at - 1]!.upTo && f.atMs >= all[at - 1]!.atMs)),
  );
  return isGrowing ? (all as NonNullable<Document['flushes']>) : null;
}

function pieces(text: string): string[] {
  return text.split(',').flatMap((piece) => piece.trim() || []);
}
