import postcss, { type Rule } from 'postcss';
import parseSelector, { type Node as SelectorNode } from 'postcss-selector-parser';
import type { StyleRule } from '../core/snapshot/types.ts';
import { filesBelow } from './files-below.ts';
import { textIfThere } from './folder-files.ts';
import { remembered } from './memory/memory.ts';
import { nestsTooDeep } from './nesting.ts';

export interface Mentioned {
  words: readonly string[];
  beginnings: readonly string[];
}

/** Words of a text that could be names of style rules, each once; `beginnings`: those of them that begin every name of a kind (`tone-${name}`). */
export function mentionedWords(text: string): Mentioned {
  return remembered('words', [text], () => {
    const words = [...new Set(text.match(/-?[A-Za-z_][\w-]*/g))];
    return { words, beginnings: words.filter(isBeginning) };
  });
}

/** Whether a word ends like the beginning of a name that is put together: two letters, then `-` or `_`. */
function isBeginning(word: string): boolean {
  let end = word.length;
  while (end > 0 && (word[end - 1] === '-' || word[end - 1] === '_')) end--;
  return end < word.length && /^[A-Za-z]{2}$/.test(word.slice(Math.max(0, end - 2), end));
}

/** Names that something in the app mentions: whole ones, and beginnings of names that code puts together. */
export class Mentions {
  private readonly words = new Set<string>();
  private readonly beginnings = new Set<string>();

  /** Adds what a text mentions; gives that. */
  add(text: string): Mentioned {
    const mentioned = mentionedWords(text);
    for (const word of mentioned.words) this.words.add(word);
    for (const word of mentioned.beginnings) this.beginnings.add(word);
    return mentioned;
  }

  has(name: string): boolean {
    if (this.words.has(name)) return true;
    // A beginning ends with `-` or `_`: only there one can fit.
    for (let at = 0; at < Math.min(name.length, LONGEST_BEGINNING); at++)
      if ((name[at] === '-' || name[at] === '_') && this.beginnings.has(name.slice(0, at + 1))) return true;
    return false;
  }
}

const LONGEST_BEGINNING = 200;

/** What every document has, whether or not anything mentions it. */
const ALWAYS = new Set(['html', 'body', 'head', 'main', 'a', 'p', 'button', 'input', '*']);
const TEMPLATES = /\.(html?|ejs|hbs|handlebars|mustache|njk|liquid|twig|erb|php|jsp|cshtml|pug|astro|md|mdx|svg)$/;
const LARGEST_TEMPLATE = 2_000_000;

/** Adds what documents and server templates in a folder mention. */
export function addTemplates(root: string, mentions: Mentions): void {
  for (const file of filesBelow(root)) {
    if (!TEMPLATES.test(file)) continue;
    const text = textIfThere(root, file);
    if (text !== null && text.length <= LARGEST_TEMPLATE) mentions.add(text);
  }
}

/**
 * Rules of style sheets that can't match, since every selector needs a class, id or element that nothing mentions. An
 * estimate: it can't see names that come from a server's answer. Sheets that can't be parsed give nothing.
 */
export function unusedRules(sheets: { path: string; text: string }[], mentions: Mentions): StyleRule[] {
  return sheets.flatMap(({ path: module, text }) =>
    rulesIn(text).flatMap(({ needs, ...rule }) => {
      const missing = deadBecause(needs, mentions);
      return missing === null ? [] : [{ module, ...rule, missing }];
    }),
  );
}

interface OuterRule extends Omit<StyleRule, 'module' | 'missing'> {
  /** Names without which it can't match, by selector; null where they can't be told. */
  needs: string[][] | null;
}

/** The outer rules of a sheet; none of one that can't be parsed, or that nests deeper than can be followed. */
export function rulesIn(text: string): readonly OuterRule[] {
  return remembered('rules', [text], () => {
    const found: OuterRule[] = [];
    let root: postcss.Root;
    try {
      root = postcss.parse(text);
    } catch {
      return [];
    }
    if (nestsTooDeep(text)) return [];
    root.walkRules((rule) => {
      if (!isOuter(rule)) return;
      const line = rule.source?.start?.line ?? 1;
      const selector = rule.selector.replace(/\s+/g, ' ');
      found.push({ line, selector, bytes: minifiedLength(rule.toString()), needs: needsOf(rule.selector) });
    });
    return found;
  });
}

/** Rules inside of rules belong to the outer one; steps of animations are no rules. */
export function isOuter(rule: Rule): boolean {
  for (let at = rule.parent; at; at = at.parent as typeof at) {
    if (at.type === 'rule') return false;
    if (at.type === 'atrule' && /keyframes$/.test((at as postcss.AtRule).name)) return false;
  }
  return true;
}

/** One name per selector that nothing mentions; null when one of the selectors can match. */
function deadBecause(needs: OuterRule['needs'], mentions: Mentions): string[] | null {
  const missing: string[] = [];
  for (const names of needs ?? []) {
    const name = names.find((n) => !mentions.has(n));
    if (name === undefined) return null;
    missing.push(name);
  }
  return missing.length === 0 ? null : missing;
}

/** The names that each selector of a list needs; null where they can't be told. */
function needsOf(selectors: string): string[][] | null {
  const needs: string[][] = [];
  try {
    parseSelector((all) => {
      for (const selector of all.nodes) needs.push(selector.nodes.flatMap(neededName));
    }).processSync(selectors);
  } catch {
    return null;
  }
  return needs;
}

/** The name that a simple selector needs, if any. What stands inside of `:not(…)` and the like may miss. */
function neededName(node: SelectorNode): string[] {
  if (node.type !== 'class' && node.type !== 'id' && node.type !== 'tag') return [];
  const name = node.value;
  return ALWAYS.has(name) || /^\d|%$/.test(name) ? [] : [name];
}

function minifiedLength(rule: string): number {
  const small = withoutComments(rule)
    .replace(/\s+/g, ' ')
    .replace(/ ?([{};:,>]) ?/g, '$1')
    .replace(/;}/g, '}');
  return Buffer.byteLength(small.trim());
}

/** A text of style without its comments, in one pass; one that isn't closed goes to the end. */
function withoutComments(text: string): string {
  let kept = '';
  for (let at = 0; at < text.length; ) {
    const begin = text.indexOf('/*', at);
    if (begin < 0) return kept + text.slice(at);
    kept += text.slice(at, begin);
    const end = text.indexOf('*/', begin + 2);
    if (end < 0) return kept;
    at = end + 2;
  }
  return kept;
}
