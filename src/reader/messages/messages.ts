import { filesBelow } from '../files-below.ts';
import { textInside, Unreadable } from '../folder-files.ts';
import { nestsTooDeep } from '../nesting.ts';
import { parse } from '../script/parse.ts';
import { constantText, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/** Files that hold the texts of a language, by the names of their folders or of themselves (convention). */
const HOLDS = /(^|[/._-])(locales?|langs?|languages?|i18n|messages?|translations?|intl)([/._-]|$)/i;
const KINDS = /\.(json|[cm]?[jt]s)$/;
const NOT = /\.(test|spec|d)\.[cm]?[jt]s$/;
/** So many are read at most: the ones of the language that is looked for come first. */
const MOST_FILES = 200;
/** What a browser asks for whose language nobody set. */
const LANGUAGE = /(^|[/._-])en([/._-]|$)/i;

/**
 * The messages of an app by their keys: `log.add` is what the texts of a language have under `log` and `add`, in JSON or in an object that a script
 * holds, whatever stands around (the name of the language, a namespace). In English where there are several languages.
 */
export class Messages {
  private readonly whole = new Map<string, string>();
  /** By the last part of their keys. */
  private readonly byEnd = new Map<string, { path: string; text: string }[]>();

  /** Of a folder. Files that can't be read say nothing here: as modules they are told elsewhere. */
  static of(root: string): Messages {
    const messages = new Messages();
    const files = filesBelow(root).filter((f) => HOLDS.test(f) && KINDS.test(f) && !NOT.test(f));
    const [english, others] = [true, false].map((is) => files.filter((f) => LANGUAGE.test(f) === is));
    for (const file of [...english, ...others].slice(0, MOST_FILES)) {
      try {
        messages.take(file, textInside(root, file));
      } catch (error) {
        if (!(error instanceof Unreadable)) throw error;
      }
    }
    return messages;
  }

  /** Takes the texts of a file; what is there already stays. */
  take(file: string, text: string): void {
    if (nestsTooDeep(text)) return;
    const found = file.endsWith('.json') ? inJson(text) : inScript(file, text);
    const inEnglish = found.filter(({ path }) => LANGUAGE.test(path.join('.')));
    for (const { path, text: words } of inEnglish.length > 0 ? inEnglish : found) this.note(path, words);
  }

  private note(path: readonly string[], text: string): void {
    const key = path.join('.');
    if (this.whole.has(key)) return;
    this.whole.set(key, text);
    const end = path.at(-1)!;
    const alike = this.byEnd.get(end);
    if (alike) alike.push({ path: key, text });
    else this.byEnd.set(end, [{ path: key, text }]);
  }

  /** The message with a key, with `…` for what is put into it; undefined where there is none. */
  at = (key: string): string | undefined => {
    const path = key.replace(/^[\w-]+:/, '');
    const text = this.whole.get(path) ?? this.whole.get(key) ?? this.endingWith(path);
    return text === undefined ? undefined : filled(text);
  };

  /** The text with the least around its key, where that is one. */
  private endingWith(key: string): string | undefined {
    let least = Number.POSITIVE_INFINITY;
    const nearest = new Set<string>();
    for (const { path, text } of this.byEnd.get(key.split('.').at(-1)!) ?? []) {
      const around = path.split('.').length;
      if (around > least || !path.endsWith(`.${key}`)) continue;
      if (around < least) nearest.clear();
      least = around;
      nearest.add(text);
    }
    return nearest.size === 1 ? [...nearest][0] : undefined;
  }
}

/** Messages lie no deeper than this. */
const DEEPEST = 20;

interface Leaf {
  path: readonly string[];
  text: string;
}

function inJson(text: string): Leaf[] {
  const found: Leaf[] = [];
  const open: { path: string[]; value: unknown }[] = [];
  try {
    open.push({ path: [], value: JSON.parse(text) });
  } catch {
    return [];
  }
  for (const { path, value } of open) {
    if (typeof value === 'string' && path.length > 0) found.push({ path, text: value });
    // Keys may hold what stands for several levels: `"log.add": "Add"`.
    else if (typeof value === 'object' && value !== null && !Array.isArray(value) && path.length < DEEPEST)
      for (const [key, inner] of Object.entries(value)) open.push({ path: [...path, ...key.split('.')], value: inner });
  }
  // Extracted messages have their text beside a description: `"log.add": { "message": "Add" }`.
  return found.map(({ path, text: words }) => ({
    path: path.length > 1 && /^(message|string|defaultMessage)$/.test(path.at(-1)!) ? path.slice(0, -1) : path,
    text: words,
  }));
}

function inScript(file: string, text: string): Leaf[] {
  const found: Leaf[] = [];
  let program: SyntaxNode;
  try {
    program = parse(file, text).program();
  } catch {
    return [];
  }
  walk(program, (node, above) => {
    if (node.type !== 'Property') return;
    const words = constantText(node.value);
    if (words === null) return;
    const path = [...above, node].flatMap((n) =>
      n.type === 'Property' ? [nameOf(n.key) ?? constantText(n.key) ?? ''] : [],
    );
    found.push({ path: path.flatMap((key) => key.split('.')), text: words });
  });
  return found;
}

/** A message with `…` for what is put into it, the first of several forms of it, and without markup. */
function filled(text: string): string {
  const [one] = text.split(' | ');
  return one
    .replace(/\{\{?[^{}]*\}?\}|%\{\w+\}|%[sd]|@:[\w.]+/g, '…')
    .replace(/<\/?\w*\/?>/g, '')
    .replace(/\s+/g, ' ')
    .trim();
}
