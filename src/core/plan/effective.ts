import { graphIndex } from '../snapshot/graph-index.ts';
import type { ScriptPlacement, Snapshot } from '../snapshot/types.ts';
import type { Hint, Plan, Trigger } from './types.ts';

/** A plan laid over a snapshot: what is really asked for, by index, and what no longer applies. */
export interface EffectivePlan {
  /** 1 where import i is deferred under the plan, 0 where it is static. */
  deferred: Uint8Array;
  triggers: ReadonlyMap<string, Trigger>;
  hints: Hint[];
  placements: ReadonlyMap<string, ScriptPlacement>;
  loader: 'listed' | 'discovered';
  /** Decisions that name something the snapshot doesn't have. */
  stale: { decision: number; reason: string }[];
}

/** Lays a plan's decisions over a snapshot. Decisions that name nothing in it are listed as stale, never an error. */
export function effectivePlan(snapshot: Snapshot, plan: Plan): EffectivePlan {
  const index = graphIndex(snapshot);
  const deferred = new Uint8Array(snapshot.imports.length);
  for (let i = 0; i < deferred.length; i++) deferred[i] = snapshot.imports[i].kind === 'dynamic' ? 1 : 0;
  const triggers = new Map<string, Trigger>();
  const hints: Hint[] = [];
  const placements = new Map<string, ScriptPlacement>();
  let loader: EffectivePlan['loader'] = 'listed';
  const stale: EffectivePlan['stale'] = [];
  plan.decisions.forEach((decision, at) => {
    switch (decision.kind) {
      case 'detach':
      case 'join': {
        const i = index.importAt.get(decision.import);
        if (i === undefined) stale.push({ decision: at, reason: `no import ${decision.import} in this snapshot` });
        else deferred[i] = decision.kind === 'detach' ? 1 : 0;
        return;
      }
      case 'trigger':
        if (index.moduleAt.has(decision.splitPoint)) triggers.set(decision.splitPoint, decision.fetch);
        else stale.push({ decision: at, reason: `no module ${decision.splitPoint} in this snapshot` });
        return;
      case 'hint':
        if (hintApplies(snapshot, decision.hint)) hints.push(decision.hint);
        else stale.push({ decision: at, reason: 'what this hint aims at is not in this snapshot' });
        return;
      case 'script':
        if (snapshot.scripts.some((s) => s.id === decision.script)) placements.set(decision.script, decision.placement);
        else stale.push({ decision: at, reason: `no script ${decision.script} in this snapshot` });
        return;
      case 'loader':
        loader = decision.loader;
    }
  });
  return { deferred, triggers, hints, placements, loader, stale };
}

function hintApplies(snapshot: Snapshot, hint: Hint): boolean {
  const { target } = hint;
  switch (target.kind) {
    case 'split point':
      return graphIndex(snapshot).moduleAt.has(target.module);
    case 'route':
      return snapshot.routes.some((r) => r.pattern === target.pattern);
    case 'asset':
      return snapshot.routes.some((r) => [...r.content, ...r.data].some((c) => c.address === target.address));
    case 'origin':
      return true;
  }
}
