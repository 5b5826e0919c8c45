import type { LoadProgram } from '../load/types.ts';
import type { Timeline } from '../sim/types.ts';

/** What somebody waits who acts on a part as soon as it shows. */
export interface EarlyInput {
  /** Index into the program's parts. */
  part: number;
  /** From when it shows until it answers, in ms. */
  waitMs: number;
}

/**
 * The longest wait of input that comes before the script which answers it: on a part of the first screen that the document draws (a page of the server,
 * before its script has run). Null where everything answers as soon as it shows; what never answers is another matter (see `missing` of the readout).
 */
export function earlyInput(
  { parts }: Pick<LoadProgram, 'parts'>,
  { reveals }: Pick<Timeline, 'reveals'>,
): EarlyInput | null {
  const at = (part: number, state: 'shown' | 'answering') =>
    reveals.find((r) => r.part === part && r.state === state)?.at ?? Number.NaN;
  const waits = parts.flatMap(({ place, drawnBy, interactive }, part): EarlyInput[] => {
    if (place !== 'first screen' || drawnBy !== 'document' || !interactive) return [];
    const waitMs = at(part, 'answering') - at(part, 'shown');
    return waitMs > 0 ? [{ part, waitMs }] : [];
  });
  return waits.reduce<EarlyInput | null>((most, w) => (most && most.waitMs >= w.waitMs ? most : w), null);
}
