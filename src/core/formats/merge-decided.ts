import type { Amendments } from '../amend/types.ts';
import type { Plan } from '../plan/types.ts';
import type { Decided } from './plans-file.ts';

/** What came of bringing two sides together that both began from the same. */
export interface Merged {
  decided: Decided;
  /** What both changed, each otherwise: in words that say where both are. */
  conflicts: string[];
}

/**
 * Brings together what was decided here and what the file says, given what both were when they agreed last (`base`; null where they never did).
 * What only one side changed is taken. Of a plan that both changed, ours stays under its name and theirs is put beside it; of a correction that
 * both changed, ours stays. Nothing is lost but such corrections, which are told.
 */
export function mergeDecided(base: Decided | null, ours: Decided, theirs: Decided): Merged {
  const conflicts: string[] = [];
  const plans = mergePlans(base?.plans ?? [], ours.plans, theirs.plans, conflicts);
  const amendments = mergeAmendments(base?.amendments ?? null, ours.amendments, theirs.amendments, conflicts);
  return { decided: { plans, amendments }, conflicts };
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

const comparable = (plan: Plan | undefined) =>
  plan && [plan.name, plan.description, plan.basedOn ?? null, plan.decisions];

function mergePlans(
  base: readonly Plan[],
  ours: readonly Plan[],
  theirs: readonly Plan[],
  conflicts: string[],
): Plan[] {
  const named = (plans: readonly Plan[]) => new Map(plans.map((p) => [p.name, p]));
  const [was, mine, other] = [named(base), named(ours), named(theirs)];
  const taken = new Set([...mine.keys(), ...other.keys()]);
  const out: Plan[] = [];
  const equal = (a: Plan | undefined, b: Plan | undefined) => same(comparable(a), comparable(b));
  for (const name of new Set([...mine.keys(), ...other.keys()])) {
    const [b, m, o] = [was.get(name), mine.get(name), other.get(name)];
    if (equal(m, o) || equal(b, o)) {
      // The file says nothing new; where it never had the plan, ours isn't in it yet.
      if (m) out.push(m);
    } else if (equal(b, m)) {
      if (o) out.push(o);
    } else if (!o) {
      conflicts.push(`The plan “${name}” is gone from the file but was changed here: it stays.`);
      out.push(m!);
    } else if (!m) {
      conflicts.push(`The plan “${name}” was removed here but changed in the file: the file’s stays.`);
      out.push(o);
    } else {
      const beside = freeName(`${name} (file)`, taken);
      taken.add(beside);
      conflicts.push(`The plan “${name}” was changed here and in the file: the file’s is “${beside}”.`);
      out.push(m, { ...o, name: beside });
    }
  }
  return out;
}

function freeName(name: string, taken: ReadonlySet<string>): string {
  let free = name;
  for (let n = 2; taken.has(free); n++) free = `${name} ${n}`;
  return free;
}

/** What each part of corrections is called. */
const CALLED: Record<Exclude<keyof Amendments, 'measured'>, string> = {
  confirmed: 'whether routes were looked through',
  base: 'the base address',
  routes: 'corrections to routes',
  keep: 'names that are put together while the app runs',
  scripts: 'what is said of scripts',
  visitors: 'what is said of visitors',
  visits: 'visits',
  limits: 'limits',
};

function mergeAmendments(
  base: Amendments | null,
  ours: Amendments,
  theirs: Amendments,
  conflicts: string[],
): Amendments {
  const out: Record<string, unknown> = { ...ours };
  for (const key of Object.keys(CALLED) as (keyof typeof CALLED)[]) {
    const [b, m, o] = [base?.[key], ours[key], theirs[key]];
    if (same(m, o) || (base && same(b, o))) continue;
    if (base === null ? isNothing(m) : same(b, m)) out[key] = o;
    else if (base === null && isNothing(o)) continue;
    else conflicts.push(`Both here and in the file were changed: ${CALLED[key]}. Those from here stay.`);
  }
  return out as unknown as Amendments;
}

const isNothing = (value: unknown) =>
  value === undefined || value === null || value === false || (Array.isArray(value) && value.length === 0);
