import postcss from 'postcss';
import parseSelector from 'postcss-selector-parser';
import type { SheetUse } from '../core/snapshot/types.ts';
import { remembered } from './memory/memory.ts';
import { isOuter, mentionedWords } from './unused-rules.ts';

/** Names of such sheets are made up while building; whoever imports them uses them. */
const OWN_NAMES = /\.module\.\w+$/;

/**
 * Which scripts mention the classes and ids of a style sheet: only names count that no other sheet has. Left out are
 * sheets that style what has no such name (elements, the root), since they are for everybody, and sheets that nobody
 * mentions. An estimate, as names may come from a server.
 */
export function sheetUsers(
  sheets: readonly { path: string; text: string }[],
  scripts: readonly { path: string; text: string }[],
): SheetUse[] {
  const owner = new Map<string, string | null>();
  const candidates = new Set<string>();
  for (const { path, text } of sheets) {
    const names = namesIn(text);
    if (names && !OWN_NAMES.test(path)) candidates.add(path);
    for (const name of names ?? []) owner.set(name, owner.has(name) && owner.get(name) !== path ? null : path);
  }
  if (candidates.size === 0) return [];
  const users = new Map<string, Set<string>>();
  const note = (sheet: string | null | undefined, by: string) => {
    if (!sheet || !candidates.has(sheet)) return;
    const own = users.get(sheet) ?? new Set();
    users.set(sheet, own.add(by));
  };
  for (const { path, text } of scripts) {
    const { words, beginnings } = mentionedWords(text);
    for (const word of words) note(owner.get(word), path);
    for (const word of beginnings) for (const [name, sheet] of owner) if (name.startsWith(word)) note(sheet, path);
  }
  return [...users]
    .map(([module, by]) => ({ module, by: [...by].sort() }))
    .sort((a, b) => (a.module < b.module ? -1 : 1));
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
