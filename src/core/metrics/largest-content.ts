import type { LoadProgram } from '../load/types.ts';
import type { Cause, Reveal, Timeline } from '../sim/types.ts';

/** Images under so many bytes are icons: text is larger than they are. */
const ICON_BYTES = 5000;

/** What stands around all pages holds mostly the way to them; the pages hold what is read. */
const SHELL = 'shell';

/** What is taken for the largest content, and when it shows (ms; not a number when it never does). */
export interface LargestContent {
  at: number;
  /** The image's file, or the part. */
  name: string;
  cause: Cause | null;
}

/**
 * When the largest content of the first screen shows (Largest Contentful Paint, W3C: the largest image or text until somebody acts). Code says no
 * areas, so what is largest is taken from weight: the heaviest image of the first screen (bytes), where it has one that is no icon; else the part of
 * it with most to see (what drawing it again takes, or drawing it at all where that is all that is known), of several the last one: charts, maps and editors aside,
 * which are no text of one block, and what stands around all pages unless it is all there is. `expected`: the parts of the first screen on that device, by index.
 */
export function largestContent(program: LoadProgram, timeline: Timeline, expected: readonly number[]): LargestContent {
  const first: LargestContent = {
    at: timeline.moments.firstContent,
    name: 'first content',
    cause: timeline.moments.firstContentCause,
  };
  const shown = firstReveals(timeline, 'shown');
  const image = heaviestImage(program, expected);
  if (image) {
    const request = timeline.requests.findIndex((r) => r.resource === image.resource && !r.cut);
    const at = request < 0 ? Number.NaN : timeline.requests[request].end;
    const around = image.part === null ? first : shown.get(image.part);
    const { name } = program.resources[image.resource];
    if (!around) return { at: Number.NaN, name, cause: null };
    if (!(at > around.at)) return { at: at <= around.at ? around.at : Number.NaN, name, cause: around.cause };
    return { at, name, cause: { kind: 'arrival', what: name, at, request, task: -1 } };
  }
  let heaviest: LargestContent = first;
  let most = Number.NEGATIVE_INFINITY;
  const within = expected.filter((p) => program.parts[p].id !== SHELL);
  for (const p of within.length > 0 ? within : expected) {
    const { renderMs, tabledMs = 0, showsMs, name } = program.parts[p];
    const weight = showsMs ?? renderMs - tabledMs;
    const reveal = shown.get(p);
    const at = reveal?.at ?? Number.NaN;
    const isLater = weight === most && !(at <= heaviest.at);
    if (weight <= most && !isLater) continue;
    most = weight;
    heaviest = { at, name, cause: reveal?.cause ?? null };
  }
  return heaviest;
}

function firstReveals(timeline: Timeline, state: Reveal['state']): Map<number, Reveal> {
  const found = new Map<number, Reveal>();
  for (const r of timeline.reveals) if (r.state === state && !found.has(r.part)) found.set(r.part, r);
  return found;
}

/** The heaviest image of the first screen, and the part that shows it; null for one in the markup. */
function heaviestImage(
  { document, resources, parts }: LoadProgram,
  expected: readonly number[],
): { resource: number; part: number | null } | null {
  const inMarkup = document.markup.flatMap((m) =>
    m.tag === 'img' && m.inView ? [{ resource: m.resource, part: null as number | null }] : [],
  );
  const inParts = expected.flatMap((part) =>
    parts[part].fill.flatMap((resource) => (resources[resource].type === 'image' ? [{ resource, part }] : [])),
  );
  return [...inParts, ...inMarkup].reduce<{ resource: number; part: number | null } | null>((best, image) => {
    const { bytes } = resources[image.resource];
    return bytes >= ICON_BYTES && bytes > (best ? resources[best.resource].bytes : 0) ? image : best;
  }, null);
}
