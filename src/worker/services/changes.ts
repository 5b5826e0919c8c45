import { AppState, landingChanges } from '../../core/check/landing-changes.ts';
import { type AlikeLandings, alikeLandings } from '../../core/check/landing-words.ts';
import { lostImports } from '../../core/check/lost-imports.ts';
import type { Plan } from '../../core/plan/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import type { Snapshot, Unresolved } from '../../core/snapshot/types.ts';
import type { HeldApp } from './held-app.ts';

/** What a folder’s changes are counted from: the last save, the first reading that this page was given, or the last commit. */
export type Since = 'last save' | 'opened' | 'last commit';

/** What changes of a folder did to landings. */
export interface ChangesView {
  landings: AlikeLandings[];
  /** So many landings were compared, of so many. */
  compared: number;
  of: number;
  /** Imports that lead nowhere since then. */
  lost: Unresolved[];
}

/** Answers what the changes of the folder did, while a project is kept in step with it. */
export class ChangesService {
  /** Apps as they were, as predicted under what is asked about; the last ones asked about are kept. */
  private known: { key: string; states: Map<Snapshot, AppState> } = { key: '', states: new Map() };

  /** The app as the last commit has it, as it was read for this page. */
  private committed: Snapshot | null = null;

  constructor(private readonly app: HeldApp) {}

  /** Fetches the app as the last commit has it, to compare with; gives the commit. */
  async takeCommit(address: string): Promise<string> {
    const answer = await fetch(address);
    const said = (await answer.json()) as { commit: string; snapshot: Snapshot; title?: string; detail?: string };
    if (!answer.ok) throw new Error(`${said.title ?? 'The commit couldn’t be read'}. ${said.detail ?? ''}`);
    this.committed = this.app.amended(said.snapshot);
    return said.commit;
  }

  /**
   * What happened to landings since then, the given route first; of the others as many as fit into about so many ms.
   */
  since(since: Since, plan: Plan, conditions: Conditions, route: string, ms: number): ChangesView {
    const now = this.app.get();
    // Where nothing was read before, nothing has changed.
    const before = (since === 'last commit' ? this.committed : this.app.before(since)) ?? now;
    const key = JSON.stringify([plan.decisions, conditions]);
    if (this.known.key !== key) this.known = { key, states: new Map() };
    for (const of of this.known.states.keys()) if (of !== before && of !== now) this.known.states.delete(of);
    const [was, is] = [this.state(before, plan, conditions), this.state(now, plan, conditions)];
    const all = [...new Set([...now.routes, ...before.routes].map((r) => r.pattern))];
    const order = [...all.filter((p) => p === route), ...all.filter((p) => p !== route)];
    const until = performance.now() + ms;
    let compared = 0;
    while (compared < order.length && (compared === 0 || performance.now() < until)) {
      was.of(order[compared]);
      is.of(order[compared]);
      compared++;
    }
    const routes = new Set(order.slice(0, compared));
    return {
      landings: alikeLandings(landingChanges(was, is, routes)),
      compared,
      of: order.length,
      lost: lostImports(before, now),
    };
  }

  private state(app: Snapshot, plan: Plan, conditions: Conditions): AppState {
    const known = this.known.states.get(app) ?? new AppState(app, plan, conditions);
    this.known.states.set(app, known);
    return known;
  }
}
