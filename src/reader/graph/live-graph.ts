import type { FoundImport } from '../found-import.ts';
import type { LeftAsked } from '../memory/left-asked.ts';
import { foresee } from '../memory/memory.ts';
import { type LiveCode, liveCode } from '../script/live-code.ts';
import { asksFor } from '../script/shipped-code.ts';
import { beginFile } from '../watch.ts';
import { followNames, type Homes, hasName, type PrunableModule } from './prune.ts';
import type { ReadModule } from './read-module.ts';

/** Names that are taken of a module; null for all that it exports. */
type Taken = ReadonlySet<string> | null;
type Link = ReadModule['imports'][number];

/**
 * Leaves out what nobody takes, as builds do: from the starts on, of each module the exports that another module takes,
 * what these need, and what it does by being run; and only the imports that this still makes. `whole`: modules of which
 * something else than an import may take any export.
 */
export function keepLive(
  modules: ReadonlyMap<string, ReadModule>,
  starts: readonly string[],
  whole: readonly string[],
): void {
  const all = new Set([...starts, ...whole]);
  foresee((by) => {
    const hasSheets = [...modules.values()].some((m) => m.kind === 'style');
    by.left(new LiveGraph(modules, all).expected(starts), hasSheets);
  });
  new LiveGraph(modules, all).run(starts);
}

/** What is taken of a module; null as well where that is all that it exports by name, so that nothing has to be looked for in it. */
function wantedOf({ exports }: ReadModule, taken: Taken): Taken {
  if (taken === null || !exports || exports.stars.length > 0) return taken;
  const isTaken = (name: string) => taken.has(name);
  return exports.own.every(isTaken) && exports.named.every(({ name }) => isTaken(name)) ? null : taken;
}

class LiveGraph {
  private readonly taken = new Map<string, Set<string> | null>();
  /** Modules of which more is taken than when they were looked at last. */
  private readonly open = new Set<string>();
  private readonly live = new Map<string, Link[]>();
  private readonly homes: Homes = new Map();
  /** CommonJS modules, whose names are known only once they run, and those that pass on whatever these give. */
  private readonly loose: ReadonlySet<string>;

  constructor(
    private readonly modules: ReadonlyMap<string, ReadModule>,
    private readonly whole: ReadonlySet<string>,
  ) {
    this.loose = looseOf(modules);
  }

  /** Scripts with what is mostly taken of them in the end: as if nothing of those that import them were left out. */
  expected(starts: readonly string[]): LeftAsked[] {
    const order = this.goOver(starts, (m) => {
      for (const { found, to } of m.imports) {
        const names = found.passesAll ? this.passed(m.reexports, to, this.taken.get(m.path) ?? null) : found.names;
        this.follow({ found: { ...found, names }, to });
      }
    });
    return order.flatMap((path) => {
      const module = this.modules.get(path)!;
      const { code } = module;
      const taken = this.taken.get(path);
      if (!code || taken === undefined) return [];
      return [{ path, code: code.text, commonJs: code.commonJs, wanted: wantedOf(module, taken) }];
    });
  }

  /** Goes over all that is taken, until no more is; gives the modules in the order in which it does. */
  private goOver(starts: readonly string[], look: (m: ReadModule) => void): string[] {
    for (const path of starts) this.take(path, null);
    // Those that import come before what they import, so that most are made small once.
    const order = importersFirst(this.modules, starts);
    while (this.open.size > 0) for (const path of order) if (this.open.delete(path)) look(this.modules.get(path)!);
    return order;
  }

  run(starts: readonly string[]): void {
    this.goOver(starts, (m) => {
      beginFile(m.path);
      this.look(m);
    });
    for (const [path, links] of this.live) this.modules.get(path)!.imports = links;
  }

  private readonly moduleAt = (path: string): PrunableModule | undefined => {
    const m = this.modules.get(path);
    return m && { sideEffects: m.module.sideEffects, reexports: m.reexports };
  };

  private take(path: string, names: readonly string[] | null): void {
    if (!this.modules.has(path)) return;
    const all = names === null || this.whole.has(path);
    const known = this.taken.get(path);
    if (known === null) return;
    if (all) this.taken.set(path, null);
    else {
      const added = known ?? new Set<string>();
      const before = added.size;
      for (const n of names) added.add(n);
      if (known && added.size === before) return;
      this.taken.set(path, added);
    }
    this.open.add(path);
  }

  /** Finds what is left of a module, and takes what that needs of others. */
  private look(m: ReadModule): void {
    const taken = this.taken.get(m.path) ?? null;
    const left = m.code && !m.code.commonJs ? liveCode(m.path, m.code.text, wantedOf(m, taken)) : null;
    if (left) m.code!.small = left.small;
    const links = m.imports.flatMap((link) => this.liveLink(m, link, left, taken) ?? []);
    this.live.set(m.path, links);
    for (const link of links) this.follow(link);
  }

  /** An import as what is left of its module makes it; null where it doesn’t. */
  private liveLink({ code, reexports }: ReadModule, link: Link, left: LiveCode | null, taken: Taken): Link | null {
    const { found, to } = link;
    if (!left || !code) return link;
    if (found.kind === 'dynamic' || found.required) {
      const isLeft = asksFor(left.small, found.specifier) || !asksFor(code.text, found.specifier);
      return isLeft ? link : null;
    }
    // What code outside of the script asks for, or a compiler adds.
    if (!code.stated.has(found.specifier) || found.names.length === 0) return link;
    const takes = left.takes.get(found.specifier);
    const names = found.passesAll
      ? this.passed(reexports, to, taken)
      : takes?.has('*')
        ? found.names
        : found.names.filter((n) => takes?.has(n));
    if (names.length > 0) return { found: { ...found, names }, to };
    return this.runs(to) ? { found: { ...withoutNames(found), names: [] }, to } : null;
  }

  /** What is taken of all that a module passes on from another one. */
  private passed(reexports: ReadModule['reexports'], to: string, taken: Taken): string[] {
    if (taken === null || !reexports) return ['*'];
    const elsewhere = [...taken].filter((name) => !reexports.own.has(name) && !reexports.named.has(name));
    const named = elsewhere.filter((name) => name !== 'default');
    if (named.length > 0 && this.loose.has(to)) return ['*'];
    return named.filter((name) => hasName(to, name, this.moduleAt));
  }

  private follow(link: Link): void {
    for (const { to, names } of this.needs(link)) this.take(to, names.includes('*') ? null : names);
  }

  /** The modules that an import needs, with the names that it takes of each. */
  private needs({ found, to }: Link): { to: string; names: readonly string[] }[] {
    if (found.kind === 'dynamic') {
      const homes = this.homesOf({ ...found, kind: 'static', names: found.taken ?? ['*'] }, to);
      // Otherwise it leads where it says (see `followNames`).
      return homes.length === 1 ? homes : [{ to, names: found.taken ?? ['*'] }];
    }
    if (found.required) return [{ to, names: ['*'] }];
    return this.homesOf(found, to).filter((t) => t.names.length > 0 || this.runs(t.to));
  }

  /** Whether a module does something by being imported. */
  private runs(path: string): boolean {
    const m = this.modules.get(path);
    return m?.kind !== 'script' || m.module.sideEffects;
  }

  private homesOf(found: FoundImport, to: string): { to: string; names: string[] }[] {
    return followNames(found, to, this.moduleAt, this.homes);
  }
}

function looseOf(modules: ReadonlyMap<string, ReadModule>): Set<string> {
  const passers = new Map<string, string[]>();
  for (const { path, reexports } of modules.values())
    for (const star of reexports?.stars ?? []) passers.set(star, [...(passers.get(star) ?? []), path]);
  const loose = new Set([...modules.values()].filter((m) => m.code?.commonJs).map((m) => m.path));
  // What is added meanwhile comes in its turn.
  for (const path of loose) for (const passer of passers.get(path) ?? []) loose.add(passer);
  return loose;
}

/** Of an import of which nothing is used any more only its running is left. */
function withoutNames({ component, passesOn, passesAll, sync, ...found }: FoundImport): FoundImport {
  return found;
}

/** All modules that starts lead to: each before what it imports, but for circles. */
function importersFirst(modules: ReadonlyMap<string, ReadModule>, starts: readonly string[]): string[] {
  const order: string[] = [];
  const seen = new Set<string>();
  const open: { path: string; next: number }[] = [];
  const enter = (path: string) => {
    if (seen.has(path) || !modules.has(path)) return;
    seen.add(path);
    open.push({ path, next: 0 });
  };
  for (const start of starts) {
    enter(start);
    for (let top = open.at(-1); top; top = open.at(-1)) {
      const { imports } = modules.get(top.path)!;
      if (top.next < imports.length) enter(imports[top.next++].to);
      else order.push(open.pop()!.path);
    }
  }
  return order.reverse();
}
