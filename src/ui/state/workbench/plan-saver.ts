import type { Decision } from '../../../core/plan/types.ts';
import type { StoredPlan } from '../../../store/plans.ts';
import { api, Refusal } from '../api.ts';
import { oneAtATime } from '../one-at-a-time.ts';
import { tellTabs } from '../tabs.ts';
import { forgetUnsaved, keepUnsaved, unsavedOf } from '../unsaved.ts';
import { type Bench, followOrigin, planOf, putPlan, storedPlan } from './bench.ts';
import { telling } from './notices.ts';
import { comesBack, Retry } from './retry.ts';
import { after, overall, type SaveEvent, type Saves } from './saves.ts';
import type { Description } from './types.ts';

/** Saves plans as they are decided upon, one after the other, until the server has confirmed them; see saves.ts. */
export class PlanSaver {
  /** Plans that aren't confirmed. The person may look at another by now. */
  private saves: Saves = new Map();
  /** Plans that aren't open, and of which the person knows that somebody else changed them. */
  private readonly told = new Set<string>();
  private readonly retry = new Retry(() => void this.save());
  /** Saves whatever isn't saved; fulfilled when nothing is left to try. */
  readonly save = oneAtATime(() => this.saveAll());

  constructor(private readonly bench: Bench) {}

  private on(id: string, event: SaveEvent): void {
    this.saves = after(this.saves, id, event);
  }

  /** Another project is open: what isn't confirmed of the one before is kept in the browser. */
  forgetAll(): void {
    this.saves = new Map();
    this.told.clear();
  }

  /** The open plan gets other decisions. */
  change(decisions: Decision[]): void {
    const plan = storedPlan(this.bench.get());
    if (!plan) return;
    const changed = { ...plan, decisions };
    putPlan(this.bench, changed);
    keepUnsaved(changed);
    this.on(plan.id, 'decided');
    void this.save();
  }

  /** Saves what a plan is called and for; what is being saved of it comes first, so that versions follow one another. */
  async describe(id: string, values: Partial<Description>): Promise<void> {
    await this.save();
    const plan = planOf(this.bench, id);
    if (!plan) return;
    const saved = await api.savePlan(plan.id, plan.version, values);
    followOrigin(this.bench, plan.name, saved.name);
    putPlan(this.bench, { ...saved, decisions: planOf(this.bench, plan.id)?.decisions ?? saved.decisions });
  }

  /** Takes up what was decided upon the open plan and never confirmed. */
  takeUp(): void {
    const plan = storedPlan(this.bench.get());
    if (!plan) return;
    if (this.saves.has(plan.id)) {
      void this.save();
      return;
    }
    const kept = unsavedOf(plan.id);
    if (!kept) return;
    if (JSON.stringify(kept.decisions) === JSON.stringify(plan.decisions)) {
      forgetUnsaved(plan.id);
      return;
    }
    // With the version that they were decided upon: never written over what somebody else saved since.
    putPlan(this.bench, { ...plan, ...kept });
    const theirs = kept.version === plan.version ? null : plan;
    this.on(plan.id, theirs ? 'refused' : 'decided');
    this.bench.set({
      saving: overall(this.saves),
      conflict: theirs,
      ...telling(this.bench.get(), 'Decisions that were never saved are here again.'),
    });
    if (!theirs) void this.save();
  }

  /** Of a plan, mine or theirs was chosen: there is nothing to save any more. */
  settle(id: string): void {
    this.on(id, 'settled');
    this.told.delete(id);
    forgetUnsaved(id);
    const { saving } = this.bench.get();
    this.bench.set({ conflict: null, saving: this.saves.size > 0 ? saving : 'saved' });
  }

  private async saveAll(): Promise<void> {
    this.retry.stop();
    for (const id of [...this.saves.keys()]) {
      const plan = planOf(this.bench, id);
      if (!plan) this.on(id, 'settled');
      else if (this.bench.get().conflict?.id !== id) {
        this.bench.set({ saving: 'saving' });
        await this.send(plan);
      }
    }
    const saving = overall(this.saves);
    const again = saving === 'saved' && this.bench.get().troubled;
    this.bench.set({
      saving,
      ...(saving === 'saved' ? { troubled: false } : {}),
      ...(again ? telling(this.bench.get(), 'The server answers again; everything is saved.', { stays: false }) : {}),
    });
  }

  /** Sends a plan as it stands. */
  private async send(sent: StoredPlan): Promise<void> {
    const { bench } = this;
    keepUnsaved(sent);
    this.on(sent.id, 'sent');
    try {
      const saved = await api.savePlan(sent.id, sent.version, { decisions: sent.decisions });
      const mine = planOf(bench, sent.id);
      if (mine) putPlan(bench, { ...mine, version: saved.version, changedAt: saved.changedAt });
      tellTabs(saved);
      this.on(sent.id, 'confirmed');
      if (this.saves.has(sent.id)) return;
      // What was kept may have been decided later, in another tab or before another project was opened.
      if (JSON.stringify(unsavedOf(sent.id)?.decisions) === JSON.stringify(sent.decisions)) forgetUnsaved(sent.id);
    } catch (error) {
      if (error instanceof Refusal && error.status === 409) this.refused(sent, error.current as StoredPlan);
      else this.on(sent.id, 'failed');
      if (!comesBack(error)) return;
      if (!bench.get().troubled)
        bench.set({ troubled: true, ...telling(bench.get(), `${error.title}. ${error.detail}`, { stays: false }) });
      this.retry.later();
    }
  }

  /** Somebody else was faster: asked about where the plan is open, told where it isn't. */
  private refused(sent: StoredPlan, theirs: StoredPlan): void {
    this.on(sent.id, 'refused');
    if (sent.id === this.bench.get().planId) this.bench.set({ conflict: theirs });
    else if (!this.told.has(sent.id)) {
      this.told.add(sent.id);
      this.bench.set(
        telling(this.bench.get(), `“${sent.name}” was changed elsewhere too. Open it to choose what stays.`),
      );
    }
  }
}
