import type { ScriptPlacement } from '../snapshot/types.ts';

/** A named set of decisions over a snapshot. The baseline plan has none: the app as built. */
export interface Plan {
  name: string;
  description: string;
  decisions: Decision[];
}

export type Trigger =
  | { on: 'at once' }
  | { on: 'after first paint' }
  | { on: 'idle' }
  | { on: 'visible' }
  | { on: 'approach' }
  | { on: 'action' }
  | { on: 'after'; ms: number }
  | { on: 'media'; maxWidth?: number; minWidth?: number }
  | { on: 'answer'; of: string }
  | { on: 'event'; name: string };

export type HintKind = 'preload' | 'modulepreload' | 'prefetch' | 'preconnect';
export type HintPlace = 'markup' | 'header' | 'early';

/** What a hint aims at: never a chunk's file name, so that it survives another way of cutting. */
export type HintTarget =
  | { kind: 'split point'; module: string }
  | { kind: 'route'; pattern: string }
  | { kind: 'asset'; address: string }
  | { kind: 'origin'; origin: string };

export interface Hint {
  kind: HintKind;
  target: HintTarget;
  place: HintPlace;
  /** Routes whose document carries it; empty = every route that can use it. */
  routes: string[];
}

/**
 * One decision. Imports are named by their stable key (importer's path, `::`, specifier, `#ordinal` from the
 * second on), split points by the path of their target.
 */
export type Decision =
  | { kind: 'detach'; import: string }
  | { kind: 'join'; import: string }
  | { kind: 'trigger'; splitPoint: string; fetch: Trigger }
  | { kind: 'hint'; hint: Hint }
  | { kind: 'script'; script: string; placement: ScriptPlacement }
  | { kind: 'loader'; loader: 'listed' | 'discovered' };

/** How a decision reaches production. */
export type ShipsBy = 'source edit' | 'server or markup' | 'build setting';

export const BASELINE: Plan = { name: 'Baseline', description: 'The app as built.', decisions: [] };
