import { type Act, type ImportedUse, type RunSheet, type Runs, sooner, type UsePlace } from './run-sheet.ts';

/** What is asked of modules to find out when their code runs. */
export interface RunModules {
  sheetAt(path: string): RunSheet | null;
  /** Where an imported name of a module is defined; null where that isn't known. */
  definer(from: string, specifier: string, name: string): { path: string; name: string } | null;
  /** Whether something else than imports may use what a module exports: its framework, the document, a deferred import. */
  isAskedOtherwise(path: string): boolean;
}

interface Spot {
  path: string;
  at: UsePlace;
}

/**
 * When imported names are used: through functions of the module itself, and of others that import them. A name that is only
 * used in functions which are called by handlers of what people do, in whatever module, is used when somebody acts.
 */
export class RunTimes {
  /** What is used from outside of a module, by path and name, with the places. */
  private readonly outside = new Map<string, Map<string, { path: string; use: ImportedUse }[]>>();
  private readonly known = new Map<string, Runs>();

  constructor(
    paths: Iterable<string>,
    private readonly modules: RunModules,
  ) {
    for (const path of paths)
      for (const use of modules.sheetAt(path)?.imported ?? []) {
        const home = modules.definer(path, use.specifier, use.name);
        if (!home) continue;
        const names = this.outside.get(home.path) ?? new Map<string, { path: string; use: ImportedUse }[]>();
        this.outside.set(home.path, names);
        const places = names.get(home.name) ?? [];
        places.push({ path, use });
        names.set(home.name, places);
      }
  }

  /** How soon a module uses what it imports by a specifier, of the names that count. */
  of(path: string, specifier: string, counts: (name: string) => boolean = () => true): Runs {
    let runs: Runs = 'never';
    for (const use of this.modules.sheetAt(path)?.imported ?? [])
      if (use.specifier === specifier && counts(use.name)) runs = sooner(runs, this.spot({ path, at: use.at }));
    return runs;
  }

  /** The first place at which something that runs at once needs a name of an import; null where all can wait. */
  neededAt(path: string, specifier: string, counts: (name: string) => boolean = () => true): number | null {
    const uses = this.modules.sheetAt(path)?.imported ?? [];
    const found = uses.find((use) => use.specifier === specifier && counts(use.name) && this.isNeededAtOnce(path, use));
    return found?.atOnce ?? null;
  }

  /**
   * How soon anybody uses what a module exports; null where somebody needs it at once, or in ways that aren't known, so that
   * who passes it on can't be passed by.
   */
  ofExports(path: string): Runs | null {
    if (this.modules.isAskedOtherwise(path) || this.outside.get(path)?.has('*')) return null;
    let runs: Runs = 'never';
    for (const uses of this.outside.get(path)?.values() ?? [])
      for (const { path: from, use } of uses) {
        if (this.isNeededAtOnce(from, use)) return null;
        runs = sooner(runs, this.spot({ path: from, at: use.at }));
      }
    return runs;
  }

  private isNeededAtOnce(path: string, use: ImportedUse): boolean {
    if (use.atOnce === null || this.spot({ path, at: use.at }) !== 'now') return false;
    const home = use.asComponent ? this.modules.definer(path, use.specifier, use.name) : null;
    return !(home && this.modules.sheetAt(home.path)?.components.has(home.name));
  }

  /** What a person does to have a module use what it imports by a specifier, or ask for it: each act once. */
  acts(path: string, specifier: string, counts: (name: string) => boolean = () => true): Act[] {
    const sheet = this.modules.sheetAt(path);
    const uses = [
      ...(sheet?.imported ?? []).filter((use) => use.specifier === specifier && counts(use.name)),
      ...(sheet?.deferred ?? []).filter((asked) => asked.specifier === specifier),
    ];
    const found = new Map<string, Act>();
    const note = (spot: Spot) => {
      if (typeof spot.at === 'object' && 'act' in spot.at)
        found.set(`${spot.path}\n${spot.at.act}`, { path: spot.path, words: spot.at.act });
    };
    for (const { at } of uses)
      if (typeof at === 'object' && 'fn' in at) for (const spot of this.reach(path, at.fn)) note(spot);
      else note({ path, at });
    return [...found.values()];
  }

  /** How soon a module asks for what it imports in a deferred way. */
  ofDeferred(path: string, specifier: string): Runs {
    let runs: Runs = 'never';
    for (const asked of this.modules.sheetAt(path)?.deferred ?? [])
      if (asked.specifier === specifier) runs = sooner(runs, this.spot({ path, at: asked.at }));
    return runs;
  }

  /** Whether a module puts something that shows into the page by itself as soon as it, or what calls it, has run: without waiting for anything. */
  writesAtOnce(path: string): boolean {
    const open = (this.modules.sheetAt(path)?.writes ?? []).map((at): Spot => ({ path, at }));
    const seen = new Set<string>();
    for (const { path: where, at } of open) {
      if (at === 'now') return true;
      if (typeof at === 'string' || 'act' in at || at.waits) continue;
      const key = `${where}\n${at.fn}`;
      if (!seen.has(key)) open.push(...this.callers(where, at.fn));
      seen.add(key);
    }
    return false;
  }

  private spot({ path, at }: Spot): Runs {
    return timeOf(at) ?? this.function(path, (at as { fn: string }).fn);
  }

  /** The soonest of all places from which a function is reached. */
  private function(path: string, fn: string): Runs {
    const key = `${path}\n${fn}`;
    const known = this.known.get(key);
    if (known) return known;
    let runs: Runs = 'never';
    for (const place of this.reach(path, fn)) {
      runs = sooner(runs, timeOf(place.at)!);
      if (runs === 'now') break;
    }
    this.known.set(key, runs);
    return runs;
  }

  /** All places from which a function is reached that aren't in functions themselves: walked once, so that circles of calls end. */
  private *reach(path: string, fn: string): Generator<Spot> {
    const keyOf = (spot: { path: string; fn: string }) => `${spot.path}\n${spot.fn}`;
    const seen = new Set([keyOf({ path, fn })]);
    const open = [{ path, fn }];
    for (let next = open.pop(); next; next = open.pop())
      for (const { path: where, at } of this.callers(next.path, next.fn)) {
        if (typeof at === 'string' || 'act' in at) {
          yield { path: where, at };
          continue;
        }
        const caller = { path: where, fn: at.fn };
        if (!seen.has(keyOf(caller))) open.push(caller);
        seen.add(keyOf(caller));
      }
  }

  /** The places that use a function: of its own module, and of those that import it. */
  private callers(path: string, fn: string): Spot[] {
    const sheet = this.modules.sheetAt(path);
    if (!sheet) return [{ path, at: 'now' }];
    const own = (sheet.functions.get(fn) ?? []).map((at): Spot => ({ path, at }));
    const outside = this.outside.get(path);
    const others = [...sheet.exported].flatMap(([name, local]): Spot[] => {
      if (local !== fn) return [];
      if (this.modules.isAskedOtherwise(path)) return [{ path, at: 'now' }];
      const uses = [...(outside?.get(name) ?? []), ...(outside?.get('*') ?? [])];
      return uses.map(({ path: from, use }) => ({ path: from, at: use.at }));
    });
    return [...own, ...others];
  }
}

/** When the code at a place runs; null in functions, which run when they are called. */
function timeOf(at: UsePlace): Runs | null {
  if (at === 'later') return 'now';
  if (typeof at === 'string') return at;
  return 'act' in at ? 'act' : null;
}
