/** What a module passes on from others. */
export interface Reexports {
  /** exported name → where it comes from, and under which name it is there. */
  named: Map<string, { to: string; name: string }>;
  /** Modules of which everything is passed on. */
  stars: string[];
  /** Names that the module defines itself. */
  own: Set<string>;
}
