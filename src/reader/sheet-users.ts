import postcss from 'postcss';
import parseSelector from 'postcss-selector-parser';
import type { SheetUse } from '../core/snapshot/types.ts';
import { remembered } from './memory/memory.ts';
import { isOuter, type Mentioned } from './unused-rules.ts';

/** Names of such sheets are made up while building; whoever imports them uses them. */
const OWN_NAMES = /\.module\.\w+$/;

/**
 * Which scripts mention the classes and ids of a style sheet: only names count that no other sheet has. Left out are
 * sheets that style what has no such name (elements, the root), since they are for everybody, and sheets that nobody
 * mentions. An estimate, as names may come from a server.
 */
export class SheetUsers {
  /** The one sheet that has a name; null where several do. */
  private readonly owner = new Map<string, string | null>();
  private readonly candidates = new Set<string>();
  private readonly users = new Map<string, Set<string>>();

  constructor(sheets: readonly { path: string; text: string }[]) {
    const { owner } = this;
    for (const { path, text } of sheets) {
      const names = namesIn(text);
      if (names && !OWN_NAMES.test(path)) this.candidates.add(path);
      for (const name of names ?? []) owner.set(name, owner.has(name) && owner.get(name) !== path ? null : path);
    }
  }

  /** What a script mentions. */
  add(script: string, { words, beginnings }: Mentioned): void {
    if (this.candidates.size === 0) return;
    for (const word of words) this.note(this.owner.get(word), script);
    for (const word of beginnings)
      for (const [name, sheet] of this.owner) if (name.startsWith(word)) this.note(sheet, script);
  }

  /** The sheets that somebody uses, with the scripts that do, in order. */
  uses(): SheetUse[] {
    return [...this.users]
      .map(([module, by]) => ({ module, by: [...by].sort() }))
      .sort((a, b) => (a.module < b.module ? -1 : 1));
  }

  private note(sheet: string | null | undefined, by: string): void {
    if (!sheet || !this.candidates.has(sheet)) return;
    const own = this.users.get(sheet) ?? new Set();
    this.users.set(sheet, own.add(by));
  }
}

/** Classes and ids in the rules of a sheet; null where a rule needs none of them, or the sheet can't be parsed. */
export function namesIn(text: string): ReadonlySet<string> | null {
  return remembered('names', [text], () => foundNames(text));
}

function foundNames(text: string): Set<string> | null {
  const names = new Set<string>();
  let all = true;
  try {
    postcss.parse(text).walkRules((rule) => {
      if (!isOuter(rule)) return;
      parseSelector((selectors) => {
        for (const selector of selectors.nodes) {
          let named = false;
          selector.walk((node) => {
            if (node.type !== 'class' && node.type !== 'id') return;
            names.add(node.value);
            named = true;
          });
          all &&= named;
        }
      }).processSync(rule.selector);
    });
  } catch {
    return null;
  }
  return all && names.size > 0 ? names : null;
}
