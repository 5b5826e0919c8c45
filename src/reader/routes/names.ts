import type { Reexports } from '../graph/reexports.ts';
import type { Name, RouteSheet, TextExpression, Texts } from './expressions.ts';

/** A module as far as routes are looked for in it. */
export interface RouteModule {
  path: string;
  realm: string;
  sheet: RouteSheet | null;
  /** specifier → path of the module that it leads to. */
  resolved: ReadonlyMap<string, string>;
  reexports: Reexports | null;
  /** Names of elements that it defines. */
  elements: readonly string[];
  /** Name of the package that it belongs to; null for the app's own. */
  package: string | null;
}

/** Where a name is defined: a module, and what it is called there. */
export interface Definition {
  module: RouteModule;
  local: string;
  /** Keys that are still to be taken. */
  keys: string[];
}

/** Follows names through imports and modules that only pass them on. */
export class Names {
  constructor(private readonly modules: ReadonlyMap<string, RouteModule>) {}

  at(path: string | undefined): RouteModule | undefined {
    return path === undefined ? undefined : this.modules.get(path);
  }

  /** Where a name that a module uses is defined; null where it leads nowhere. */
  definition(holder: RouteModule, { name, keys }: Name): Definition | null {
    const found = holder.sheet?.imported.get(name);
    // What is neither imported nor declared at the top is given while the app runs.
    if (!found) return !holder.sheet || holder.sheet.declared.has(name) ? { module: holder, local: name, keys } : null;
    const target = this.at(holder.resolved.get(found.specifier));
    if (!target) return null;
    if (found.exported !== '*') return this.exported(target, found.exported, keys);
    // All of a module under one name: what it gives by itself is meant.
    return this.exported(target, keys[0] ?? 'default', keys.slice(1));
  }

  /** Where an export of a module is defined. */
  exported(from: RouteModule, name: string, keys: string[] = []): Definition | null {
    let module = from;
    let exported = name;
    for (const seen = new Set<string>(); !seen.has(`${module.path}\n${exported}`); ) {
      seen.add(`${module.path}\n${exported}`);
      const passed = module.reexports?.named.get(exported);
      if (passed && this.at(passed.to)) {
        if (passed.name === '*')
          return keys.length === 0 ? null : this.exported(this.at(passed.to)!, keys[0], keys.slice(1));
        module = this.at(passed.to)!;
        exported = passed.name;
        continue;
      }
      const behind = module.reexports?.own.has(exported) ? undefined : this.behindStars(module, exported);
      if (!behind) break;
      module = behind;
    }
    const local = module.sheet?.exported.get(exported) ?? exported;
    // What is imported here and exported again is defined where it comes from.
    const imported = module.sheet?.imported.has(local) && module.path !== from.path;
    return imported ? this.definition(module, { name: local, keys }) : { module, local, keys };
  }

  private behindStars(module: RouteModule, name: string): RouteModule | undefined {
    const met = new Set([module.path]);
    const open = [...(module.reexports?.stars ?? [])];
    for (let path = open.shift(); path !== undefined; path = open.shift()) {
      const next = this.at(path);
      if (!next || met.has(path)) continue;
      met.add(path);
      if (next.reexports?.own.has(name) || next.reexports?.named.has(name)) return next;
      open.push(...(next.reexports?.stars ?? []));
    }
    return undefined;
  }

  /** The text of an expression; null where it isn't constant. */
  text(holder: RouteModule, expression: TextExpression, depth = 0): string | null {
    if (expression === null || typeof expression === 'string') return expression;
    if ('joined' in expression) {
      const pieces = expression.joined.map((piece) => this.text(holder, piece, depth + 1));
      return pieces.includes(null) ? null : pieces.join('');
    }
    const defined = this.definition(holder, expression);
    if (!defined) return null;
    let here: Texts | undefined = defined.module.sheet?.texts.get(defined.local);
    for (const key of defined.keys) here = here && 'keys' in here ? here.keys[key] : undefined;
    if (!here || !('text' in here) || depth > 20) return null;
    return this.text(defined.module, here.text, depth + 1);
  }
}
