import type { PartCondition } from '../../core/snapshot/route-types.ts';
import type { FoundImport } from '../found-import.ts';
import type { DrawnWhen } from '../parts/drawn-when.ts';
import { widthsIn } from '../parts/media.ts';
import { SourceText } from '../source-text.ts';
import type { SyntaxNode } from '../syntax.ts';
import { elementNode, templateRoot } from './markup-nodes.ts';
import type { ComponentFile, ComponentStyle } from './types.ts';

const TAG = /<([A-Z]\w{0,200})(?=[\s/>.])/g;
const IMPORT = /^[ \t]*import\s{1,20}(?:type\s)?([^'";]{0,500}?)\s{0,20}(?:from\s{0,20})?(['"])([^'"\n]{1,500})\2/gm;

interface Written {
  specifier: string;
  names: string[];
  start: number;
  end: number;
}

/**
 * A page or component of islands (public form of `.astro` files): code between dashes that runs on the server, markup, and components that
 * a `client:` directive sends to the browser. `load` and `only` are asked for at once; `idle`, `visible` and `media` when that is so. Its
 * own scripts and styles ship; all else stays on the server and weighs nothing, but is followed where it is such a file too.
 */
export function islandFile(path: string, text: string): ComponentFile {
  const source = new SourceText(text);
  const fence = frontMatter(text);
  const written = importsOf(text.slice(fence.from, fence.to), fence.from);
  const markup = blank(text.slice(0, fence.end)) + text.slice(fence.end);
  const scripts = blocks(markup, 'script').filter((b) => !/\bis:inline\b|\bsrc\s{0,9}=/.test(b.head));
  const styles = blocks(markup, 'style').map(({ head, body, from }): ComponentStyle => {
    const lang = /\blang\s{0,9}=\s{0,9}["']?(\w{1,20})/.exec(head)?.[1] ?? 'css';
    return { text: body, lang, src: null, line: source.place(from).line };
  });
  const islands = islandsOf(markup, written);
  const found: FoundImport[] = [];
  const add = (w: Written, kind: 'static' | 'dynamic') => {
    const names = kind === 'static' ? w.names : ['*'];
    const context = kind === 'dynamic' ? ({ context: 'wrapper' } as const) : {};
    found.push({
      kind,
      specifier: w.specifier,
      names,
      ...context,
      ...source.place(w.start),
      start: w.start,
      end: w.end,
    });
  };
  for (const w of written) {
    const own = islands.filter((i) => i.from === w);
    const ships = w.specifier.endsWith('.astro') || /\.(css|scss|sass|less)$/.test(w.specifier);
    if (ships || own.some((i) => i.atOnce)) add(w, 'static');
    else if (own.length > 0) add(w, 'dynamic');
  }
  // Front matter and markup run on the server: in the browser there are only the scripts.
  const script = scripts.reduce(
    (all, b) => all.slice(0, b.from) + b.body + all.slice(b.from + b.body.length),
    blank(text),
  );
  const rest = { script, scriptPath: `${path}.ts`, markup, compiled: null, rest: '', styles, told: null };
  const bindings = new Map(written.flatMap((w) => w.names.map((name) => [name, w.specifier] as const)));
  const span = { start: fence.end, end: text.length };
  return {
    ...rest,
    drawn: templateRoot(
      islands.map((i) => i.node),
      span,
    ),
    bindings,
    imports: found,
  };
}

interface Island {
  from: Written | undefined;
  atOnce: boolean;
  node: SyntaxNode;
}

/** Components in the markup: those with a directive, and those of the same form, which may hold some. */
function islandsOf(markup: string, written: readonly Written[]): Island[] {
  const byName = new Map(written.flatMap((w) => w.names.map((name) => [name, w] as const)));
  return [...markup.matchAll(TAG)].flatMap((match) => {
    const from = byName.get(match[1]);
    const attributes = attributesFrom(markup, match.index + match[0].length);
    const directive =
      /\bclient:(load|idle|visible|media|only)(?:\s{0,9}=\s{0,9}(?:"([^"]{0,200})"|'([^']{0,200})'|\{["'`]([^}]{0,200})["'`]\}))?/.exec(
        attributes,
      );
    if (!directive && !from?.specifier.endsWith('.astro')) return [];
    const when = whenOf(directive?.[1], directive?.[2] ?? directive?.[3] ?? directive?.[4] ?? '');
    const span = { start: match.index, end: match.index + match[0].length };
    const node = elementNode(match[1], span, [], [], when === null ? {} : { drawnWhen: when });
    return [{ from, atOnce: directive !== null && /load|only/.test(directive[1]), node }];
  });
}

function whenOf(directive: string | undefined, value: string): DrawnWhen | null {
  if (directive === 'visible') return { kind: 'seen' };
  const condition: PartCondition | null = directive === 'media' ? widthsIn(value) : null;
  return condition ? { kind: 'condition', condition } : null;
}

/** More than anybody writes into one tag. */
const LONGEST_TAG = 4000;

/** The attributes of a tag: up to its end, which a `>` inside of braces or quotes isn't. */
function attributesFrom(text: string, from: number): string {
  let depth = 0;
  let quote = '';
  const most = Math.min(text.length, from + LONGEST_TAG);
  for (let at = from; at < most; at++) {
    const sign = text[at];
    if (quote !== '') {
      if (sign === quote) quote = '';
    } else if (sign === '"' || sign === "'" || sign === '`') quote = sign;
    else if (sign === '{') depth++;
    else if (sign === '}') depth--;
    else if (sign === '>' && depth <= 0) return text.slice(from, at);
  }
  return text.slice(from, most);
}

/** What stands between the dashes at the beginning. */
function frontMatter(text: string): { from: number; to: number; end: number } {
  const opens = /^\s{0,100}---[ \t]{0,20}\r?\n/.exec(text);
  if (!opens) return { from: 0, to: 0, end: 0 };
  const from = opens[0].length;
  const closes = text.startsWith('---', from) ? from : text.indexOf('\n---', from);
  return closes < 0
    ? { from, to: text.length, end: text.length }
    : { from, to: closes, end: Math.min(text.length, closes + 4) };
}

function importsOf(code: string, offset: number): Written[] {
  return [...code.matchAll(IMPORT)].map(([whole, clause, , specifier], i, all) => {
    const start = offset + (all[i] as unknown as RegExpMatchArray).index!;
    return { specifier, names: namesOf(clause), start, end: start + whole.length };
  });
}

function namesOf(clause: string): string[] {
  const names = [...clause.matchAll(/(?:\bas\s{1,9})?([A-Za-z_$][\w$]{0,200})(?=\s{0,9}(?:,|\}|$))/g)].map((m) => m[1]);
  return names.filter((n) => n !== 'type');
}

/** Blocks of a kind in markup, with what stands in their tag. */
function blocks(markup: string, tag: 'script' | 'style'): { head: string; body: string; from: number }[] {
  const found: { head: string; body: string; from: number }[] = [];
  for (let at = markup.indexOf(`<${tag}`); at >= 0; at = markup.indexOf(`<${tag}`, at + 1)) {
    const head = attributesFrom(markup, at + tag.length + 1);
    const from = at + tag.length + 1 + head.length + 1;
    const to = markup.indexOf(`</${tag}`, from);
    if (to < 0) break;
    found.push({ head, body: markup.slice(from, to), from });
    at = to;
  }
  return found;
}

function blank(text: string): string {
  return text.replace(/[^\n]/g, ' ');
}
