import type { Remedy } from '../../../core/advise/types.ts';
import type { Amendments } from '../../../core/amend/types.ts';
import type { Decision } from '../../../core/plan/types.ts';
import type { ProjectView } from '../../../server/projects.ts';
import type { StoredPlan } from '../../../store/plans.ts';
import type { Choice, Wishes } from '../../../worker/choice.ts';
import type { AppView } from '../../../worker/views.ts';
import type { Notice } from './notices.ts';

/** What is chosen anywhere and marked everywhere. */
export type Selection =
  | { kind: 'request'; address: string; chunk: string | null }
  | { kind: 'import'; key: string }
  | { kind: 'chunk'; id: string }
  | { kind: 'split point'; module: string }
  | null;

/** Something that can be undone: a change of the plan, or of what was read. */
export type Step = { words: string } & (
  | { of: 'plan'; before: Decision[]; after: Decision[] }
  | { of: 'reading'; before: Amendments; after: Amendments }
  | { of: 'description'; planId: string; before: Description; after: Description }
);

/** How a plan is called, and what it is for. */
export type Description = { name: string; description: string };

export type Saving = 'saved' | 'saving' | 'failed';

export interface Workbench extends Choice {
  project: ProjectView | null;
  app: AppView | null;
  selection: Selection;
  done: readonly Step[];
  undone: readonly Step[];
  saving: Saving;
  savingAmendments: Saving;
  /** Something couldn't be saved, and is tried again until it can. */
  troubled: boolean;
  /** What is to be told and isn’t yet. */
  notices: readonly Notice[];
  /** The plan as somebody else left it, while ours differs. */
  conflict: StoredPlan | null;

  /** Nothing is open: another project is about to be. */
  close(): void;
  open(project: ProjectView, app: AppView, wished: Partial<Wishes>): void;
  choose(change: Partial<Pick<Workbench, 'route' | 'linkId' | 'deviceId' | 'cache' | 'selection'>>): void;
  choosePlan(id: string | null): void;
  /** Decides in the open plan; on the baseline, which stays as built, in a new plan that begins with it. */
  decide(decisions: Decision[], words?: string): void;
  withdraw(subjects: string[], words: string): void;
  /** Makes a proposed change, with all that it decides and withdraws, in one step that can be undone. */
  take(remedy: Remedy): void;
  /** Corrects what was read. */
  amend(amendments: Amendments, words: string): void;
  undo(): void;
  redo(): void;
  addPlan(name: string, decisions: Decision[], basedOn?: string): Promise<void>;
  /** Names and describes the open plan, as a step that can be undone; throws a Refusal when it can't be. */
  describePlan(change: Partial<Description>): Promise<void>;
  removePlan(): Promise<void>;
  /** A plan as another tab saved it: the steps of this one are forgotten, for they began elsewhere. */
  takeFromTab(plan: StoredPlan, where?: string): void;
  takeTheirs(): void;
  keepMine(): Promise<void>;
  saveNow(): Promise<void>;
}
