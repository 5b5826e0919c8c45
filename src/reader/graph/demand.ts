import type { FoundImport } from '../found-import.ts';
import { type ScriptExports } from '../script/parsed-script.ts';

/** Everything that a module exports. */
export const ALL = '*';

/** An import that is needed now, with the names that are wanted of what it leads to. */
export interface Needed {
  found: FoundImport;
  names: string[];
  /** It wasn't needed before. */
  isNew: boolean;
}

/**
 * What is wanted of modules that a package calls free of side effects: of such a module only the imports are followed that a wanted name
 * needs, so that of a file that passes thousands of names on only those few are read that the app takes.
 */
export class Demand {
  private readonly wanted = new Map<string, Set<string>>();
  private readonly held = new Map<string, HeldModule>();

  /** Wants names of a module, be it read already or not; gives the imports that it needs for those that are new. */
  want(path: string, names: readonly string[]): Needed[] {
    const all = this.wanted.get(path) ?? new Set();
    this.wanted.set(path, all);
    const added = names.filter((n) => !all.has(n));
    for (const name of added) all.add(name);
    const held = this.held.get(path);
    return held ? added.flatMap((name) => held.neededBy(name)) : [];
  }

  /** Holds static imports of a module back until a name asks for them; gives those that are needed already. */
  hold(path: string, imports: readonly FoundImport[], exports: ScriptExports): Needed[] {
    const held = new HeldModule(imports, exports);
    this.held.set(path, held);
    return [...(this.wanted.get(path) ?? [])].flatMap((name) => held.neededBy(name));
  }
}

/** The imports of one module that wait for a name. */
class HeldModule {
  private readonly taken = new Set<FoundImport>();
  private readonly own: ReadonlySet<string>;
  private readonly named: ReadonlyMap<string, ScriptExports['named'][number]>;

  constructor(
    private readonly imports: readonly FoundImport[],
    private readonly exports: ScriptExports,
  ) {
    this.own = new Set(exports.own);
    this.named = new Map(exports.named.map((e) => [e.name, e]));
  }

  /** What a name needs: one of its own all that the module uses itself, one that is passed on what it comes from. */
  neededBy(name: string): Needed[] {
    if (name === ALL || this.own.has(name)) return this.imports.map((found) => this.need(found, found.names));
    const passed = this.named.get(name);
    if (passed) return this.from(passed.specifier, passed.imported);
    return this.exports.stars.flatMap((specifier) => this.from(specifier, name));
  }

  private from(specifier: string, name: string): Needed[] {
    return this.imports.filter((i) => i.specifier === specifier).map((found) => this.need(found, [name]));
  }

  private need(found: FoundImport, names: string[]): Needed {
    const isNew = !this.taken.has(found);
    this.taken.add(found);
    return { found, names, isNew };
  }
}
