import { decisionWords } from '../plan/decisions.ts';
import type { Plan } from '../plan/types.ts';
import { conditionsAsRun } from './conditions-as-run.ts';
import { CAUSES, type Difference } from './differences.ts';
import type { Beside, Gain } from './quantities.ts';
import { half, type Spread } from './spread.ts';
import type { Rehearsal } from './types.ts';

const whole = (ms: number | null) => (ms === null ? 'never' : `${Math.round(ms)} ms`);
/** A gain: what is sooner has a minus. Rounded first, so that less than half a millisecond has no sign. */
function signed(ms: number | null): string {
  if (ms === null) return '';
  const rounded = Math.round(ms);
  return `${rounded > 0 ? '−' : rounded < 0 ? '+' : ''}${Math.abs(rounded)} ms`;
}

/** What was measured several times, as in `1064 ± 12 ms`. */
export function spreadWords(spread: Spread | null): string {
  if (spread === null) return 'not seen';
  const give = Math.round(half(spread));
  return spread.runs > 1 ? `${Math.round(spread.median)} ± ${give} ms` : `${Math.round(spread.median)} ms`;
}

/** By how much a prediction is off, as in `+4 %`. */
export function offWords(off: number | null): string {
  if (off === null) return '';
  const percent = Math.round(off * 100);
  return `${percent > 0 ? '+' : percent < 0 ? '−' : ''}${Math.abs(percent)} %`;
}

/** A quantity as cells: its name, predicted, rehearsed, off by. */
export function besideWords({ name, predicted, rehearsed, off }: Beside): string[] {
  return [name, whole(predicted), spreadWords(rehearsed), offWords(off)];
}

/** A gain as cells: its name, predicted, rehearsed, the verdict. Sooner has a minus. */
export function gainWords({ name, predicted, rehearsed, give, verdict }: Gain): string[] {
  const spread = give === null ? '' : ` ± ${Math.round(give)}`;
  return [name, signed(predicted), rehearsed === null ? 'not seen' : `${signed(rehearsed)}${spread}`, verdict ?? ''];
}

/** A difference as a sentence. */
export function differenceWords({ what, cause, predicted, rehearsed }: Difference): string {
  if (rehearsed === null) return `${what}: ${CAUSES[cause]} (predicted at ${whole(predicted)})`;
  if (predicted === null) return `${what}: ${CAUSES[cause]} (came at ${whole(rehearsed)})`;
  return `${what}: ${whole(predicted)} predicted, ${whole(rehearsed)} rehearsed: ${CAUSES[cause]}`;
}

/** What of a plan wasn’t run, as sentences: those that have the same reason together. */
export function leftOutWords(plan: Plan, { leftOut }: Pick<Rehearsal, 'leftOut'>): string[] {
  const byReason = new Map<string, number[]>();
  for (const { decision, why } of leftOut) {
    const reason = why.replace(/ \([^()]*:\d+\)$/, '');
    byReason.set(reason, [...(byReason.get(reason) ?? []), decision]);
  }
  return [...byReason].map(([reason, decisions]) => {
    const [first, ...others] = decisions.map((d) =>
      plan.decisions[d] ? decisionWords(plan.decisions[d]) : 'a decision',
    );
    const more = others.length === 0 ? '' : ` and ${others.length} more`;
    return `${first}${more}: ${reason}`;
  });
}

/** How much slower than meant, or less slow, the page’s thread was; empty where it was as meant. */
export function slowedWords(rehearsal: Pick<Rehearsal, 'conditions' | 'runs'>): string {
  const { cpuFactor } = conditionsAsRun(rehearsal).device;
  if (cpuFactor === rehearsal.conditions.device.cpuFactor) return '';
  return `, its thread taking ${cpuFactor.toFixed(1)} times as long as the reference machine’s`;
}
