import type { RouteName } from '../core/amend/edit.ts';
import type { carriedOverRoutes } from '../core/chunks/carried-rows.ts';
import type { Hold } from '../core/explain/hold.ts';
import type { PlacedScript } from '../core/explain/placements.ts';
import type { SplitWait } from '../core/explain/wait.ts';
import type { Inventory } from '../core/inventory/inventory.ts';
import type { ScreenPart } from '../core/load/types.ts';
import type { ThreadBasis } from '../core/metrics/basis.ts';
import type { ChainLink } from '../core/metrics/critical-chain.ts';
import type { Milestones, Readout } from '../core/metrics/readout.ts';
import type { Sums } from '../core/metrics/start.ts';
import type { Drawn } from '../core/mix/mix.ts';
import type { WeightPicture } from '../core/outline/blocks/types.ts';
import type { Timeline } from '../core/sim/types.ts';
import type { ClassicScript } from '../core/snapshot/document-types.ts';
import type { Route } from '../core/snapshot/route-types.ts';
import type { Failed, Notice, Snapshot, Unresolved } from '../core/snapshot/types.ts';

/** A landing as the page draws it. */
export interface LandingView {
  timeline: Timeline;
  parts: ScreenPart[];
  milestones: Milestones;
  readout: Readout;
  /** The files behind the sums of the readout. */
  sums: Sums;
  /** Parts of the first screen that never show or never answer, with what they wait for. */
  missing: { name: string; state: 'shown' | 'answering'; waits: string | null }[];
  /** Files whose size nobody knows: the figures rest on less than everything. */
  unknown: string[];
  chain: ChainLink[];
  /** What running and drawing until interactive rest on. */
  basis: ThreadBasis;
  lowerBound: number;
  filesBound: number;
  /** Per request: what is in it, heaviest first. */
  contents: (ChunkContents | null)[];
  /** What is taken for the largest content. */
  largest: string;
  /** The least and the most that the milestones may come to; null where chance decides. */
  range: { low: Milestones; high: Milestones } | null;
  /** The longest wait of somebody who acts on a part as soon as it shows; null where nobody waits. In ms. */
  earlyInput: { name: string; waitMs: number } | null;
  /** Where the link loses packets at random: when nine of ten loads have come so far. All other figures are of the load in the middle. */
  nineInTen: Milestones | null;
  /** Per request: the chunk that it brings, and the split points that need it. */
  brings: ({ chunk: string; splitPoints: string[] } | null)[];
}

export interface ChunkContents {
  modules: { path: string; minified: number }[];
  count: number;
}

export interface AppView {
  name: string;
  origin: Snapshot['origin'];
  modules: number;
  routes: Route[];
  /** Realms with a document, where routes can be. */
  realms: string[];
  base: string;
  /** Whether there is a module graph to cut; an output without sources in its maps has none. */
  splittable: boolean;
  imports: number;
  /** Imports without an end, but for those that are left out on purpose. */
  lost: number;
  failed: number;
  /** Packages that its scripts import and that aren’t there. */
  missing: string[];
  /** The workspace around it that its imports lead to and that wasn’t read, as the way from its folder. */
  workspace: string | null;
  /** Names of scripts whose size nobody knows. */
  unknownSizes: string[];
  /** Corrections that no longer fit what was read. */
  stale: { at: string; reason: string }[];
  /** Routes whose parts are still those of the code that they had before a correction. */
  unproposed: RouteName[];
}

export interface Preview {
  before: { milestones: Milestones; readout: Readout };
  after: { milestones: Milestones; readout: Readout };
}

/** A route as blocks by weight, with the waits for split points that begin with what is tried. */
export interface SplitPicture {
  picture: WeightPicture;
  waits: ({ id: string } & SplitWait)[];
}

/** The inventory, with what could not be read and what is worth knowing. */
export type FullInventory = Inventory & {
  unresolved: Unresolved[];
  failed: Failed[];
  notices: Notice[];
  /** Files of an output of whose inside only names are known. */
  named: { path: string; bytes: number; contents: { source: string; bytes: number }[] }[];
};

/** What leaves, stays and moves by decisions; the wait later; and what leaves over all routes, alike in share. */
export interface Explained {
  /** `gain`: bytes, compressed, that the start loses by the cut as the landing is predicted; no cut where it loses none. */
  hold: Omit<Hold, 'cut'> & { cut: (NonNullable<Hold['cut']> & { gain: number }) | null };
  wait: SplitWait | null;
  /** The wait if script costs as little, or as much, as is believable; null where its cost was measured. */
  waitRange: [number, number] | null;
  over: ReturnType<typeof carriedOverRoutes> | null;
}

export interface ScriptView {
  script: ClassicScript;
  placed: PlacedScript[];
}

/** A mix of visitors as a person chose it; shares from 0 to 1, weights by id in any unit. */
export interface MixWish {
  links: Record<string, number>;
  devices: Record<string, number>;
  returning: number;
  spread: number;
  visits: number;
}

/** Drawn landings, plan and baseline under the same conditions one by one. */
export interface MixResult {
  plan: Drawn[];
  baseline: Drawn[];
  drawn: number;
}

export interface ChunkRow {
  id: string;
  name: string;
  kind: 'script' | 'style';
  compressed: number;
  modules: number;
  /** Roots that need it. */
  neededBy: number;
  /** The real file that it is, for a production output. */
  real: string | null;
}
