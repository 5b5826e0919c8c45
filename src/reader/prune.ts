import type { FoundImport } from './parse-script.ts';
import type { ReadModule } from './read-module.ts';

/** What a module passes on from others. */
export interface Reexports {
  /** exported name → where it comes from, and under which name it is there. */
  named: Map<string, { to: string; name: string }>;
  /** Modules of which everything is passed on. */
  stars: string[];
  /** Names that the module defines itself. */
  own: Set<string>;
}

export interface PrunableModule {
  sideEffects: boolean;
  reexports: Reexports | null;
}

/**
 * Where an import really leads: a named import through a side-effect-free module that only passes the name on reaches
 * the module that defines it. Gives one target per defining module with the names taken from it; an import of
 * everything, for effects only, or of a name that can't be followed stays as it is.
 */
export function followNames(
  found: FoundImport,
  to: string,
  moduleAt: (path: string) => PrunableModule | undefined,
): { to: string; names: string[] }[] {
  if (found.kind !== 'static' || found.names.length === 0 || found.names.includes('*'))
    return [{ to, names: found.names }];
  const targets = new Map<string, string[]>();
  for (const name of found.names) {
    const home = definer(to, name, moduleAt, new Set());
    const names = targets.get(home.path);
    if (names) names.push(home.name);
    else targets.set(home.path, [home.name]);
  }
  return [...targets].map(([path, names]) => ({ to: path, names }));
}

function definer(
  path: string,
  name: string,
  moduleAt: (path: string) => PrunableModule | undefined,
  seen: Set<string>,
): { path: string; name: string } {
  const here = { path, name };
  const module = moduleAt(path);
  if (!module || module.sideEffects || !module.reexports || seen.has(path)) return here;
  seen.add(path);
  const { named, stars, own } = module.reexports;
  if (own.has(name)) return here;
  const passed = named.get(name);
  if (passed)
    return passed.name === '*' ? { path: passed.to, name: '*' } : definer(passed.to, passed.name, moduleAt, seen);
  for (const star of stars) {
    const found = name === 'default' ? null : definerIfThere(star, name, moduleAt, new Set(seen));
    if (found) return found;
  }
  return here;
}

/** The same through `export *`, where the name may well not be there. */
function definerIfThere(
  path: string,
  name: string,
  moduleAt: (path: string) => PrunableModule | undefined,
  seen: Set<string>,
): { path: string; name: string } | null {
  const reexports = moduleAt(path)?.reexports;
  if (!reexports || seen.has(path)) return null;
  if (reexports.own.has(name)) return { path, name };
  if (reexports.named.has(name)) return definer(path, name, moduleAt, seen);
  seen.add(path);
  for (const star of reexports.stars) {
    const found = definerIfThere(star, name, moduleAt, seen);
    if (found) return found;
  }
  return null;
}

/** Imports of every module as they really lead. */
export function prunedLinks(modules: ReadonlyMap<string, ReadModule>): Map<string, ReadModule['imports']> {
  const moduleAt = (path: string): PrunableModule | undefined => {
    const m = modules.get(path);
    return m && { sideEffects: m.module.sideEffects, reexports: m.reexports };
  };
  const links = new Map<string, ReadModule['imports']>();
  for (const { path, imports } of modules.values()) {
    const led = imports.flatMap(({ found, to }) =>
      followNames(found, to, moduleAt).map((target) => ({ found: { ...found, names: target.names }, to: target.to })),
    );
    links.set(path, led);
  }
  return links;
}
