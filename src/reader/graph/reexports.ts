import { type ScriptExports } from '../script/parsed-script.ts';

/** What a module passes on from others. */
export interface Reexports {
  /** exported name → where it comes from, and under which name it is there. */
  named: Map<string, { to: string; name: string }>;
  /** Modules of which everything is passed on. */
  stars: string[];
  /** Names that the module defines itself. */
  own: Set<string>;
}

/** Exports with their specifiers resolved to paths, as far as these lead somewhere. */
export function reexportsOf(exports: ScriptExports, resolved: ReadonlyMap<string, string>): Reexports {
  const named: Reexports['named'] = new Map();
  for (const { name, specifier, imported } of exports.named) {
    const to = resolved.get(specifier);
    if (to !== undefined) named.set(name, { to, name: imported });
  }
  return { named, stars: exports.stars.flatMap((s) => resolved.get(s) ?? []), own: new Set(exports.own) };
}
