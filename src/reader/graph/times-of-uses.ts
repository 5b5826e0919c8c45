import type { Import } from '../../core/snapshot/module-types.ts';
import type { FoundImport } from '../found-import.ts';
import type { Act, Runs } from '../runs/run-sheet.ts';
import { RunTimes } from '../runs/run-times.ts';
import { SourceText } from '../source-text.ts';
import { definitionOf } from './prune.ts';
import type { ReadModule } from './read-module.ts';

/** Why an import can’t be deferred whose uses give their answer at once, though not while the module starts. */
const DRAWING = 'its answer is used at once, by code that can’t wait';

/** When the uses of a link run, whether one of them can't wait, and what somebody does to have it used (not where it is used otherwise). */
export interface UseTimes {
  times: Pick<Import, 'onActs' | 'onEffects' | 'sync'>;
  acts: Act[];
}
type Times = UseTimes['times'];

/** What is known of when the code of modules runs. */
export interface CodeTimes {
  ofLink: (from: ReadModule, found: FoundImport, to: string) => UseTimes;
  /** Whether a module puts something that shows into the page as soon as it has run. */
  writesAtOnce: (path: string) => boolean;
}

/**
 * Says of links whether they are only used when somebody acts, or once something was drawn. `asked`: modules of which
 * something else than an import may use what they export.
 */
export function timesOfUses(modules: ReadonlyMap<string, ReadModule>, asked: readonly string[]): CodeTimes {
  const otherwise = new Set(asked);
  for (const { imports, runs } of modules.values())
    for (const { found, to } of imports)
      if (found.kind === 'dynamic' || found.required || runs === null) otherwise.add(to);
  const reexportsAt = (path: string) => modules.get(path)?.reexports;
  // What such a module passes on, something else may use as well.
  for (const path of otherwise) {
    const passed = reexportsAt(path);
    for (const { to } of passed?.named.values() ?? []) otherwise.add(to);
    for (const to of passed?.stars ?? []) otherwise.add(to);
  }
  const homes = new Map<string, { path: string; name: string }>();
  const homeOf = (to: string | undefined, name: string) => {
    if (to === undefined || name === '*') return to === undefined ? null : { path: to, name };
    const key = `${to}\n${name}`;
    const home = homes.get(key) ?? definitionOf(to, name, reexportsAt);
    homes.set(key, home);
    return home;
  };
  const texts = new Map<string, SourceText>();
  const lineIn = (path: string, source: string, at: number) => {
    const text = texts.get(path) ?? new SourceText(source);
    texts.set(path, text);
    return text.place(at).line;
  };
  const times = new RunTimes(modules.keys(), {
    sheetAt: (path) => modules.get(path)?.runs ?? null,
    definer: (from, specifier, name) => homeOf(modules.get(from)?.resolved.get(specifier), name),
    isAskedOtherwise: (path) => otherwise.has(path),
  });
  const countsFor = (from: ReadModule, found: FoundImport, to: string) => {
    const resolved = from.resolved.get(found.specifier);
    // A link that was led on past what only passes names on is used where the names are that it leads to.
    return (name: string) => to === resolved || homeOf(resolved, name)?.path === to;
  };
  const timesOf = (from: ReadModule, found: FoundImport, to: string): Times => {
    if (found.kind === 'dynamic') return {};
    if (!from.runs) return found.sync ? { sync: found.sync } : {};
    if (found.sync && found.passesOn) return pastOnPasser(found.sync, times.ofExports(to));
    const resolved = from.resolved.get(found.specifier);
    const home = found.component === undefined ? null : homeOf(resolved, found.component);
    const isComponent = home !== null && modules.get(home.path)?.runs?.components.has(home.name) === true;
    if (found.sync && !isComponent) return { sync: found.sync };
    const counts = countsFor(from, found, to);
    const runs = times.of(from.path, found.specifier, counts);
    if (runs === 'act') return { onActs: true };
    if (runs === 'effect') return { onEffects: true };
    const at = from.source === null ? null : times.neededAt(from.path, found.specifier, counts);
    return at === null ? {} : { sync: { reason: DRAWING, line: lineIn(from.path, from.source!, at) } };
  };
  const ofLink = (from: ReadModule, found: FoundImport, to: string) => {
    const told = timesOf(from, found, to);
    const isOnActs =
      found.kind === 'dynamic' ? times.ofDeferred(from.path, found.specifier) === 'act' : told.onActs === true;
    return { times: told, acts: isOnActs ? times.acts(from.path, found.specifier, countsFor(from, found, to)) : [] };
  };
  return { ofLink, writesAtOnce: (path) => times.writesAtOnce(path) };
}

/** Of a link that only passes names on: it can be passed by where nobody needs them at once. */
function pastOnPasser(sync: NonNullable<Import['sync']>, runs: Runs | null): Times {
  if (runs === null || runs === 'now') return { sync };
  return runs === 'act' ? { onActs: true } : runs === 'effect' ? { onEffects: true } : {};
}
