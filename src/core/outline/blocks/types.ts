import type { Weight } from '../../chunks/carried.ts';
import type { Decision, Plan } from '../../plan/types.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import type { Trigger } from '../../vocabulary/triggers.ts';

/** An app as a plan ships it. */
export interface ShippedPlan {
  app: Snapshot;
  plan: Plan;
}

/** The band of what a landing fetches before anything else; other bands go by the path of their split point. */
export const START = 'start';

/** Modules that stand together in one band, and have the same way to go when something is tried. */
export interface Block {
  /** The same as long as it is about the same modules. */
  id: string;
  /** What it is of: `package`, `folder` or `module`; `rest`: lighter ones that aren't told apart. */
  kind: 'package' | 'folder' | 'module' | 'rest';
  name: string;
  /** Of the package, folder or module; of a rest: the band. */
  of: string;
  weight: Weight;
  modules: number;
  /** The band that it is in once what is tried is done: its own where it stays; null where this route doesn't ask for it any more. */
  to: string | null;
  /** It is needed by what goes, and stays all the same: by whom it is kept (an importer in the start). */
  keptBy: string | null;
  /** It can be taken apart into smaller ones. */
  opens: boolean;
  /** What taking it out of the start, or into it, decides; empty where that can't be decided of all of it at once. */
  decisions: Decision[];
}

/** What is fetched at one moment of a route. */
export interface Band {
  id: string;
  name: string;
  /** When it is fetched; null for the start. */
  trigger: Trigger | null;
  /** The first screen waits for it. */
  onLanding: boolean;
  /** It is only there once what is tried is done. */
  isNew: boolean;
  weight: Weight;
  /** What taking all of it into the start decides; empty for the start, and where no import of the code asks for it. */
  joins: Decision[];
  /** The heaviest first. */
  blocks: Block[];
}

/** A route as blocks by weight, in the bands in which they are fetched, and where each goes when something is tried. */
export interface WeightPicture {
  bands: Band[];
  /** Split points that are too light to be told apart, with what they weigh together. */
  lighter: Weight & { count: number };
}
