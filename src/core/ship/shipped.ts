import { DECISIONS } from '../plan/decision-kinds.ts';
import { type EffectivePlan, effectivePlan } from '../plan/effective.ts';
import { matcher, matchWords } from '../plan/match.ts';
import type { Decision, Plan, Ship } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { withMoved } from './moved.ts';
import { withOneVersion } from './one-version.ts';
import { withoutScript } from './without-script.ts';

/** A snapshot as a plan ships it, and the decisions that could not be followed. */
export interface Shipped {
  snapshot: Snapshot;
  stale: EffectivePlan['stale'];
}

/** How each kind of decision about what travels is followed; in words why it can't be. */
const WAYS: { [K in Ship['kind']]: (snapshot: Snapshot, decision: Extract<Ship, { kind: K }>) => Snapshot | string } = {
  'no script': (snapshot, { module }) => withoutScript(snapshot, module),
  trim: (snapshot, { module }) => trimmed(snapshot, module),
  'style in script': inScript,
  'one version': (snapshot, { package: name, keep }) => withOneVersion(snapshot, name, keep),
  move: (snapshot, { import: key, to }) => withMoved(snapshot, key, to),
};

function isShip(decision: Decision): decision is Ship {
  return DECISIONS[decision.kind].stage === 'ship';
}

function follow<K extends Ship['kind']>(snapshot: Snapshot, decision: Extract<Ship, { kind: K }> & { kind: K }) {
  return WAYS[decision.kind](snapshot, decision);
}

/** Ways of shipping one snapshot that are remembered: the plan at hand and what it is compared with. */
const MOST_KNOWN = 8;

const cache = new WeakMap<Snapshot, Map<string, Shipped>>();

/**
 * What a plan makes of the modules themselves, before chunks are formed: parts whose script doesn't travel, style
 * sheets without their unused rules, styles that travel in script. The same snapshot when a plan decides nothing of
 * the kind. All later stages work on what this gives. Done twice, it changes nothing more.
 */
export function shipped(snapshot: Snapshot, plan: Pick<Plan, 'decisions'>): Shipped {
  const wished = plan.decisions.filter(isShip);
  if (wished.length === 0) return { snapshot, stale: [] };
  const ways = cache.get(snapshot) ?? new Map<string, Shipped>();
  cache.set(snapshot, ways);
  const key = JSON.stringify(plan.decisions.map((d) => (isShip(d) ? d : null)));
  const made = ways.get(key) ?? ship(snapshot, plan);
  ways.set(key, made);
  for (const [oldest] of ways) {
    if (ways.size <= MOST_KNOWN) break;
    ways.delete(oldest);
  }
  return made;
}

/** A plan's decisions that don't apply to a snapshot, or that can't be followed by themselves. */
export function troublesOf(snapshot: Snapshot, plan: Plan): Pick<EffectivePlan, 'stale' | 'blocked'> {
  const { snapshot: now, stale } = shipped(snapshot, plan);
  const effective = effectivePlan(now, plan);
  const later = effective.stale.map((s) => {
    const decision = plan.decisions[s.decision];
    const wasThere = 'import' in decision && graphIndex(snapshot).importAt.has(decision.import);
    return wasThere ? { ...s, reason: `${decision.import} goes: its script doesn’t travel in this plan` } : s;
  });
  return { stale: [...stale, ...later].sort((a, b) => a.decision - b.decision), blocked: effective.blocked };
}

function ship(read: Snapshot, plan: Pick<Plan, 'decisions'>): Shipped {
  let snapshot = read;
  const stale: Shipped['stale'] = [];
  plan.decisions.forEach((decision, at) => {
    const next = isShip(decision) ? follow(snapshot, decision) : snapshot;
    if (typeof next === 'string') stale.push({ decision: at, reason: next });
    else snapshot = next;
  });
  return { snapshot, stale };
}

/** Without the rules of a sheet that nothing can use; its sizes shrink in proportion. */
function trimmed(snapshot: Snapshot, path: string): Snapshot | string {
  const m = graphIndex(snapshot).moduleAt.get(path);
  if (m === undefined) return `no module ${path} in this snapshot`;
  const rules = snapshot.unusedRules.filter((r) => r.module === path);
  if (rules.length === 0) return `no rule of ${path} is unused`;
  const { bytes } = snapshot.modules[m];
  const left = Math.max(0, bytes.minified - rules.reduce((sum, r) => sum + r.bytes, 0));
  const share = bytes.minified === 0 ? 0 : left / bytes.minified;
  const scaled = Object.fromEntries(Object.entries(bytes).map(([kind, n]) => [kind, Math.round(n * share)]));
  const modules = snapshot.modules.with(m, {
    ...snapshot.modules[m],
    bytes: { ...bytes, ...scaled, minified: left },
  });
  return { ...snapshot, modules, unusedRules: snapshot.unusedRules.filter((r) => r.module !== path) };
}

/** With matching styles as script modules, which the browser doesn't wait for before it paints. */
function inScript(snapshot: Snapshot, { match }: Extract<Ship, { kind: 'style in script' }>): Snapshot | string {
  const fits = matcher(match);
  let found = false;
  const modules = snapshot.modules.map((m) => {
    if (m.kind !== 'style' || !fits(m)) return m;
    found = true;
    return { ...m, kind: 'script' as const };
  });
  return found ? { ...snapshot, modules } : `${matchWords(match)} matches no style sheet`;
}
