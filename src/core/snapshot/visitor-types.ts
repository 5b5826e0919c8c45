/** A time that differs from person to person: its median, and the standard deviation of its logarithm. */
export interface Spread {
  medianMs: number;
  spread: number;
}

/**
 * What is said of an app's visitors, as far as somebody says it: in the notes beside its sources, by correction, or
 * learned from a log. Shares are from 0 to 1.
 */
export interface VisitorNotes {
  /** Visitors that are in a segment; parts may be for one of them only. */
  segments?: { name: string; share: number }[];
  /** Visitors who touch, so that nothing announces their acts; as the device says where this doesn't. */
  touch?: number;
  /** Visitors who asked their browser to save data. */
  dataSaver?: number;
  /** Visits of people who were there before, and those of them for whom the app was deployed again since. */
  returning?: number;
  deployed?: number;
  /** From the approach to the act. */
  hesitation?: Spread;
  routes?: RouteNotes[];
}

export interface RouteNotes {
  pattern: string;
  /** From one moment on the route to the next. */
  dwell?: Spread;
  /** Where people go from here; who goes nowhere leaves. */
  moves?: { to: string; share: number }[];
  /** Share of the stays on the route in which a part's act is done. */
  acts?: { part: string; share: number; hesitation?: Spread }[];
}

/** The visitors of an app, complete. */
export interface VisitorModel {
  segments: { name: string; share: number }[];
  /** Null: as the device says. */
  touch: number | null;
  dataSaver: number;
  returning: number;
  deployed: number;
  hesitation: Spread;
  routes: Habits[];
}

export interface Habits {
  pattern: string;
  /** Path of the page's module. */
  page: string;
  /** Share of all landings. */
  landings: number;
  dwell: Spread;
  moves: { to: string; share: number }[];
  acts: { part: string; name: string; module: string; scroll: boolean; share: number; hesitation: Spread }[];
  /** Parts that only some stays need, by what that hangs on. */
  conditions: { part: string; share: number; segment?: string; group?: string }[];
}
