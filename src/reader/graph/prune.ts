import type { FoundImport } from '../found-import.ts';
import type { ReadModule } from './read-module.ts';
import type { Reexports } from './reexports.ts';

export interface PrunableModule {
  sideEffects: boolean;
  reexports: Reexports | null;
}

/** Where an import leads, or a part of its names. */
export interface Led {
  to: string;
  names: string[];
  /** Names of these that the import writes otherwise. */
  renamed?: { as: string; name: string }[];
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
  known: Homes = new Map(),
): Led[] {
  const homesOf = (names: readonly string[]) => {
    const targets = new Map<string, Led>();
    for (const name of names) {
      const home = definer(to, name, moduleAt, known);
      const led = targets.get(home.path) ?? { to: home.path, names: [] };
      targets.set(home.path, led);
      led.names.push(home.name);
      if (home.name !== name) led.renamed = [...(led.renamed ?? []), { as: name, name: home.name }];
    }
    return [...targets.values()];
  };
  if (found.kind === 'dynamic') {
    // Where only some names are taken, and one module defines them all, it leads there.
    const homes = homesOf(found.taken ?? []);
    return [homes.length === 1 ? { ...homes[0], names: found.names } : { to, names: found.names }];
  }
  if (found.names.length === 0 || found.names.includes('*')) return [{ to, names: found.names }];
  return homesOf(found.names);
}

/** The module that defines a name, through all that only pass it on, whatever else these do, and the name that it has there. */
export function definitionOf(
  path: string,
  name: string,
  reexportsAt: (path: string) => Reexports | null | undefined,
): { path: string; name: string } {
  const moduleAt = (at: string) => {
    const reexports = reexportsAt(at);
    return reexports ? { sideEffects: false, reexports } : undefined;
  };
  return definer(path, name, moduleAt, new Map());
}

/** Where names of modules lead, as far as it is known. */
export type Homes = Map<string, { path: string; name: string }>;

const keyOf = ({ path, name }: { path: string; name: string }) => `${path}\n${name}`;

function definer(
  path: string,
  name: string,
  moduleAt: (path: string) => PrunableModule | undefined,
  known: Homes,
): { path: string; name: string } {
  const way: string[] = [];
  const home = followed({ path, name }, moduleAt, known, way);
  for (const key of way) known.set(key, home);
  return home;
}

/** One module after another in a loop: names may be passed on through very many. `way` gets what was passed. */
function followed(
  from: { path: string; name: string },
  moduleAt: (path: string) => PrunableModule | undefined,
  known: Homes,
  way: string[],
): { path: string; name: string } {
  const seen = new Set<string>();
  for (let here = from; ; ) {
    const there = known.get(keyOf(here));
    if (there) return there;
    way.push(keyOf(here));
    const module = moduleAt(here.path);
    if (!module || module.sideEffects || !module.reexports || seen.has(here.path)) return here;
    seen.add(here.path);
    const { named, stars, own } = module.reexports;
    if (own.has(here.name)) return here;
    const passed = named.get(here.name);
    const next = passed
      ? { path: passed.to, name: passed.name }
      : here.name === 'default'
        ? null
        : definedBehind(stars, here.name, moduleAt, seen);
    if (!next) return here;
    if (next.name === '*') return next;
    here = next;
  }
}

/** The module behind several `export *` that has a name, defined or passed on by name: the first in their order, depth first. */
function definedBehind(
  stars: readonly string[],
  name: string,
  moduleAt: (path: string) => PrunableModule | undefined,
  seen: ReadonlySet<string>,
): { path: string; name: string } | null {
  const met = new Set(seen);
  const open = [...stars].reverse();
  for (let path = open.pop(); path !== undefined; path = open.pop()) {
    const reexports = moduleAt(path)?.reexports;
    if (!reexports || met.has(path)) continue;
    met.add(path);
    if (reexports.own.has(name) || reexports.named.has(name)) return { path, name };
    open.push(...[...reexports.stars].reverse());
  }
  return null;
}

/** An import without names of a script that does nothing by being imported. */
function keepsNothing({ kind, names, required }: FoundImport, to: ReadModule | undefined): boolean {
  return kind === 'static' && names.length === 0 && !required && to?.kind === 'script' && !to.module.sideEffects;
}

/** Imports of every module as they really lead. */
export function prunedLinks(modules: ReadonlyMap<string, ReadModule>): Map<string, ReadModule['imports']> {
  const moduleAt = (path: string): PrunableModule | undefined => {
    const m = modules.get(path);
    return m && { sideEffects: m.module.sideEffects, reexports: m.reexports };
  };
  const links = new Map<string, ReadModule['imports']>();
  const cache: Homes = new Map();
  for (const { path, imports } of modules.values()) {
    const kept = imports.filter(({ found, to }) => !keepsNothing(found, modules.get(to)));
    const led = kept.flatMap(({ found, to }) =>
      followNames(found, to, moduleAt, cache).map(({ to: target, ...led }) => ({
        found: { ...found, ...led },
        to: target,
      })),
    );
    links.set(path, led);
  }
  return links;
}

/** Whether a module defines a name or passes it on. */
export function hasName(path: string, name: string, moduleAt: (path: string) => PrunableModule | undefined): boolean {
  const reexports = moduleAt(path)?.reexports;
  if (!reexports) return false;
  return (
    reexports.own.has(name) ||
    reexports.named.has(name) ||
    definedBehind(reexports.stars, name, moduleAt, new Set([path])) !== null
  );
}
