import { graphIndex, importKey } from '../snapshot/graph-index.ts';
import type { ScriptPlacement, Snapshot } from '../snapshot/types.ts';
import type { Hint } from '../vocabulary/hints.ts';
import type { Trigger } from '../vocabulary/triggers.ts';
import { hintTrouble } from './hints.ts';
import { addShape, noShaping, type Shaping } from './shaping.ts';
import type { ImportChoice, Plan, SplitSettings } from './types.ts';

/** A plan laid over a snapshot: what is really asked for, by index, and what no longer applies. */
export interface EffectivePlan {
  /** 1 where import i is deferred under the plan, 0 where it is static. */
  deferred: Uint8Array;
  triggers: ReadonlyMap<string, Trigger>;
  /** By the path of a split point's target. */
  settings: ReadonlyMap<string, SplitSettings>;
  hints: Hint[];
  /** Links of documents that are left out (see linkKey). */
  dropped: ReadonlySet<string>;
  placements: ReadonlyMap<string, ScriptPlacement>;
  loader: 'listed' | 'discovered';
  shaping: Shaping;
  /** Detachments that can't be done by detaching alone, since the importer needs the import while it starts. */
  blocked: { decision: number; import: string; reason: string; line: number }[];
  /** Decisions that name something the snapshot doesn't have. */
  stale: { decision: number; reason: string }[];
}

/** Lays a plan's decisions over a snapshot. Decisions that name nothing in it are listed as stale, never an error. */
export function effectivePlan(snapshot: Snapshot, plan: Plan): EffectivePlan {
  const index = graphIndex(snapshot);
  const deferred = new Uint8Array(snapshot.imports.length);
  for (let i = 0; i < deferred.length; i++) deferred[i] = snapshot.imports[i].kind === 'dynamic' ? 1 : 0;
  const triggers = new Map<string, Trigger>();
  const settings = new Map<string, SplitSettings>();
  const hinted: { decision: number; hint: Hint }[] = [];
  const dropped = new Set<string>();
  const placements = new Map<string, ScriptPlacement>();
  let loader: EffectivePlan['loader'] = 'listed';
  const shaping = noShaping();
  const stale: EffectivePlan['stale'] = [];
  const blocked: EffectivePlan['blocked'] = [];
  plan.decisions.forEach((decision, at) => {
    switch (decision.kind) {
      case 'detach':
      case 'join': {
        const chosen = chosenImports(snapshot, decision);
        if (typeof chosen === 'string') stale.push({ decision: at, reason: chosen });
        else
          for (const i of chosen) {
            const { sync } = snapshot.imports[i];
            deferred[i] = decision.kind === 'detach' ? 1 : 0;
            if (deferred[i] && sync)
              blocked.push({ decision: at, import: importKey(snapshot, snapshot.imports[i]), ...sync });
          }
        return;
      }
      case 'trigger':
        if (index.moduleAt.has(decision.splitPoint)) triggers.set(decision.splitPoint, decision.fetch);
        else stale.push({ decision: at, reason: `no module ${decision.splitPoint} in this snapshot` });
        return;
      case 'split':
        if (index.moduleAt.has(decision.splitPoint)) settings.set(decision.splitPoint, decision);
        else stale.push({ decision: at, reason: `no module ${decision.splitPoint} in this snapshot` });
        return;
      case 'hint':
        hinted.push({ decision: at, hint: decision.hint });
        return;
      case 'script':
        if (snapshot.scripts.some((s) => s.id === decision.script)) placements.set(decision.script, decision.placement);
        else stale.push({ decision: at, reason: `no script ${decision.script} in this snapshot` });
        return;
      case 'loader':
        loader = decision.loader;
        return;
      case 'drop link':
        if (snapshot.links.some((l) => linkKey(l) === linkKey(decision))) dropped.add(linkKey(decision));
        else
          stale.push({
            decision: at,
            reason: `no document has a ${decision.rel} of ${decision.address} in this snapshot`,
          });
        return;
      case 'put aside':
        // Advice that isn't taken changes nothing.
        return;
      case 'no script':
      case 'trim':
      case 'one version':
      case 'move':
      case 'style in script':
        // What these leave of the modules is settled before imports are looked at.
        return;
      case 'gather':
      case 'together':
      case 'apart':
      case 'floor':
      case 'ceiling':
      case 'copy':
      case 'grain':
      case 'chunk name': {
        const trouble = addShape(shaping, snapshot, decision);
        if (trouble !== null) stale.push({ decision: at, reason: trouble });
        return;
      }
      default:
        decision satisfies never;
    }
  });
  // What a hint aims at may be deferred by a decision after it.
  const hints = hinted.flatMap(({ decision, hint }) => {
    const reason = hintTrouble(snapshot, hint, deferred);
    if (reason !== null) stale.push({ decision, reason });
    return reason === null ? [hint] : [];
  });
  return { deferred, triggers, settings, hints, dropped, placements, loader, shaping, blocked, stale };
}

export const linkKey = ({ rel, address }: { rel: string; address: string }): string => `${rel} ${address}`;

/** The imports that a decision means, by index; what is wrong, in words, when there are none. */
export function chosenImports(snapshot: Snapshot, choice: ImportChoice): number[] | string {
  const index = graphIndex(snapshot);
  if ('import' in choice) {
    const i = index.importAt.get(choice.import);
    return i === undefined ? `no import ${choice.import} in this snapshot` : [i];
  }
  if ('module' in choice) {
    const m = index.moduleAt.get(choice.module);
    if (m === undefined) return `no module ${choice.module} in this snapshot`;
    const found = [...index.incoming.subarray(index.inStart[m], index.inStart[m + 1])];
    return found.length > 0 ? found : `nothing imports ${choice.module}`;
  }
  const found: number[] = [];
  snapshot.imports.forEach(({ from, to }, i) => {
    const into = snapshot.modules[to].package === choice.package;
    if (into && snapshot.modules[from].package !== choice.package) found.push(i);
  });
  return found.length > 0 ? found : `nothing imports the package ${choice.package} in this snapshot`;
}
