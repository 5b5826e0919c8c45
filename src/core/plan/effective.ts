import type { ScriptPlacement } from '../snapshot/document-types.ts';
import type { GraphIndex } from '../snapshot/graph-index.ts';
import { graphIndex, importKey } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { Hint } from '../vocabulary/hints.ts';
import type { Trigger } from '../vocabulary/triggers.ts';
import { hintTrouble } from './hints.ts';
import { addShape, noShaping, type Shaping } from './shaping.ts';
import type { Decision, DecisionOf, ImportChoice, Plan, SplitSettings } from './types.ts';

/** A plan laid over a snapshot: what is really asked for, by index, and what no longer applies. */
export interface EffectivePlan {
  /** 1 where import i is deferred under the plan, 0 where it is static. */
  deferred: Uint8Array;
  triggers: ReadonlyMap<string, Trigger>;
  /** By the path of a split point's target. */
  settings: ReadonlyMap<string, SplitSettings>;
  /** Split points of which the code itself says so if they can’t be loaded. */
  caught: ReadonlySet<string>;
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
  const laid = new LaidPlan(snapshot);
  for (const [at, decision] of plan.decisions.entries()) {
    const trouble = laid.lay(decision, at);
    if (trouble !== null) laid.stale.push({ decision: at, reason: trouble });
  }
  return laid.done();
}

/** A plan while its decisions are laid over a snapshot, one after the other. */
class LaidPlan {
  readonly stale: EffectivePlan['stale'] = [];
  private readonly index: GraphIndex;
  private readonly deferred: Uint8Array;
  private readonly triggers = new Map<string, Trigger>();
  private readonly settings = new Map<string, SplitSettings>();
  private readonly hinted: { decision: number; hint: Hint }[] = [];
  private readonly dropped = new Set<string>();
  private readonly placements = new Map<string, ScriptPlacement>();
  private readonly shaping = noShaping();
  private readonly blocked: EffectivePlan['blocked'] = [];
  private loader: EffectivePlan['loader'] = 'listed';

  constructor(private readonly snapshot: Snapshot) {
    this.index = graphIndex(snapshot);
    this.deferred = this.index.deferred.slice();
  }

  /** Lays one decision; gives in words why it names nothing here, null where it does. */
  lay(decision: Decision, at: number): string | null {
    const { snapshot } = this;
    switch (decision.kind) {
      case 'detach':
      case 'join':
        return this.cut(decision, at);
      case 'trigger':
        return this.ofSplitPoint(decision.splitPoint, (path) => this.triggers.set(path, decision.fetch));
      case 'split':
        return this.ofSplitPoint(decision.splitPoint, (path) => this.settings.set(path, decision));
      case 'hint':
        this.hinted.push({ decision: at, hint: decision.hint });
        return null;
      case 'script':
        if (!snapshot.scripts.some((s) => s.id === decision.script))
          return `no script ${decision.script} in this snapshot`;
        this.placements.set(decision.script, decision.placement);
        return null;
      case 'loader':
        this.loader = decision.loader;
        return null;
      case 'drop link':
        if (!snapshot.links.some((l) => linkKey(l) === linkKey(decision)))
          return `no document has a ${decision.rel} of ${decision.address} in this snapshot`;
        this.dropped.add(linkKey(decision));
        return null;
      case 'put aside':
        // Advice that isn't taken changes nothing.
        return null;
      case 'no script':
      case 'trim':
      case 'one version':
      case 'move':
      case 'style in script':
        // What these leave of the modules is settled before imports are looked at.
        return null;
      case 'gather':
      case 'together':
      case 'apart':
      case 'floor':
      case 'ceiling':
      case 'copy':
      case 'grain':
      case 'chunk name':
        return addShape(this.shaping, snapshot, decision);
    }
  }

  /** Makes imports deferred or static; those that can't be deferred alone are noted as blocked. */
  private cut(decision: DecisionOf<'detach' | 'join'>, at: number): string | null {
    const { imports } = this.snapshot;
    const chosen = chosenImports(this.snapshot, decision);
    if (typeof chosen === 'string') return chosen;
    for (const i of chosen) {
      const { sync } = imports[i];
      this.deferred[i] = decision.kind === 'detach' ? 1 : 0;
      if (this.deferred[i] && sync)
        this.blocked.push({ decision: at, import: importKey(this.snapshot, imports[i]), ...sync });
    }
    return null;
  }

  private ofSplitPoint(path: string, set: (path: string) => void): string | null {
    if (!this.index.moduleAt.has(path)) return `no module ${path} in this snapshot`;
    set(path);
    return null;
  }

  done(): EffectivePlan {
    const { deferred, triggers, settings, dropped, placements, loader, shaping, blocked, stale } = this;
    // What a hint aims at may be deferred by a decision after it.
    const hints = this.hinted.flatMap(({ decision, hint }) => {
      const reason = hintTrouble(this.snapshot, hint, deferred);
      if (reason !== null) stale.push({ decision, reason });
      return reason === null ? [hint] : [];
    });
    const caught = caughtIn(this.snapshot);
    return { deferred, triggers, settings, caught, hints, dropped, placements, loader, shaping, blocked, stale };
  }
}

const caughtOf = new WeakMap<Snapshot, ReadonlySet<string>>();

/** Modules all of whose deferred imports are caught; worked out once, as plans are laid over a snapshot with each decision. */
function caughtIn(snapshot: Snapshot): ReadonlySet<string> {
  const known = caughtOf.get(snapshot) ?? findCaught(snapshot);
  caughtOf.set(snapshot, known);
  return known;
}

function findCaught({ modules, imports }: Snapshot): Set<string> {
  const caught = new Set<string>();
  const silent = new Set<string>();
  for (const i of imports) if (i.kind === 'dynamic') (i.caught ? caught : silent).add(modules[i.to].path);
  return new Set([...caught].filter((path) => !silent.has(path)));
}

/** Whether the person is told if a split point can’t be loaded: as the plan says, else as the code does. */
export function tellsFailure({ settings, caught }: EffectivePlan, module: string): boolean {
  const { onError } = settings.get(module) ?? {};
  return onError === undefined ? caught.has(module) : onError !== 'nothing';
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
