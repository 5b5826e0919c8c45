import { type DefaultTreeAdapterTypes, parse } from 'parse5';
import type { DocumentLink, ScriptPlacement } from '../core/snapshot/document-types.ts';

/** A file that a document asks for by a tag. */
export interface HtmlTag {
  kind: 'script' | 'style';
  address: string;
  /** The tag's `id`, where it has one. */
  id: string | null;
  placement: Exclude<ScriptPlacement, 'inlined' | 'after load'>;
  line: number;
  /** Place in the text, in UTF-16 units. */
  offset: number;
}

export interface HtmlInline {
  module: boolean;
  text: string;
  id: string | null;
  line: number;
}

export type HtmlLink = Pick<DocumentLink, 'rel' | 'address' | 'as' | 'crossorigin' | 'priority'> & { line: number };

/** What an HTML file asks for, in its order. */
export interface HtmlDocument {
  tags: HtmlTag[];
  inline: HtmlInline[];
  links: HtmlLink[];
  /** The import map: specifier, or prefix that ends with `/`, to address. */
  imports: Map<string, string>;
  /** The `href` of its `base` element. */
  base: string | null;
  /** Elements in it that scripts define, by their names. */
  elements: { name: string; line: number }[];
  /** Whether its body shows text before any script has run. */
  drawn: boolean;
  /** Addresses of scripts that only browsers without modules load. */
  forOldBrowsers: string[];
  /** What is wrong in it, with the line. */
  troubles: { line: number; message: string }[];
}

const RELS = ['preload', 'modulepreload', 'prefetch', 'preconnect'] as const;
const SCRIPT_TYPES = new Set(['', 'module', 'text/javascript', 'application/javascript']);
/** Elements whose text nobody sees. */
const UNSEEN = new Set(['script', 'style', 'template', 'noscript']);

/** What builds put the address of the app for in documents, by their public conventions; with the slash after it. */
const BASE = /%PUBLIC_URL%\/?|%BASE_URL%\/?|<%=[^\S\n]{0,9}BASE_URL[^\S\n]{0,9}%>\/?/g;

/** A document as a build leaves it for an app at the top of its origin. */
export function withBase(text: string): string {
  return text.replace(BASE, '/');
}

/** Reads an HTML file with the platform's own rules; scripts that only old browsers run are left out. */
export function readHtml(text: string): HtmlDocument {
  const found: HtmlDocument = {
    tags: [],
    inline: [],
    links: [],
    imports: new Map(),
    base: null,
    elements: [],
    drawn: false,
    forOldBrowsers: [],
    troubles: [],
  };
  // With a list of its own, not by calling itself: elements may stand in one another however deep.
  const open: { node: DefaultTreeAdapterTypes.Node; inBody: boolean; unseen: boolean }[] = [
    { node: parse(text, { sourceCodeLocationInfo: true }), inBody: false, unseen: false },
  ];
  for (let next = open.pop(); next; next = open.pop()) {
    const { node, inBody, unseen } = next;
    if ('tagName' in node) meet(node, inBody, found);
    if (node.nodeName === '#text' && 'value' in node && node.value.trim() !== '') found.drawn ||= inBody && !unseen;
    if (!('childNodes' in node)) continue;
    for (const child of node.childNodes.toReversed())
      open.push({
        node: child,
        inBody: inBody || node.nodeName === 'body',
        unseen: unseen || UNSEEN.has(node.nodeName),
      });
  }
  return found;
}

function meet(node: DefaultTreeAdapterTypes.Element, inBody: boolean, found: HtmlDocument): void {
  const attributes = new Map(node.attrs.map((a) => [a.name, withBase(a.value)]));
  const line = node.sourceCodeLocation?.startLine ?? 1;
  const offset = node.sourceCodeLocation?.startOffset ?? 0;
  if (node.tagName === 'base') found.base ??= attributes.get('href') ?? null;
  if (node.tagName === 'link') meetLink(attributes, line, offset, found);
  if (inBody && node.tagName.includes('-')) found.elements.push({ name: node.tagName, line });
  if (node.tagName !== 'script') return;
  if (attributes.has('nomodule')) {
    found.forOldBrowsers.push(attributes.get('src') ?? '');
    return;
  }
  const type = (attributes.get('type') ?? '').trim().toLowerCase();
  const address = attributes.get('src');
  const id = attributes.get('id') ?? null;
  const text = node.childNodes.map((c) => ('value' in c ? c.value : '')).join('');
  if (type === 'importmap') readImportMap(text, line, found);
  if (!SCRIPT_TYPES.has(type)) return;
  if (address === undefined) {
    if (text.trim() !== '') found.inline.push({ module: type === 'module', text, id, line });
    return;
  }
  found.tags.push({ kind: 'script', address, id, placement: placementOf(attributes, type, inBody), line, offset });
}

function placementOf(attributes: Map<string, string>, type: string, inBody: boolean): HtmlTag['placement'] {
  if (type === 'module') return attributes.has('async') ? 'async' : 'module';
  if (attributes.has('async')) return 'async';
  if (attributes.has('defer')) return 'defer';
  return inBody ? 'end of body' : 'blocking';
}

function meetLink(attributes: Map<string, string>, line: number, offset: number, found: HtmlDocument): void {
  const rels = (attributes.get('rel') ?? '').toLowerCase().split(/\s+/);
  const address = attributes.get('href') ?? '';
  if (rels.includes('stylesheet')) {
    found.tags.push({ kind: 'style', address, id: null, placement: 'blocking', line, offset });
    return;
  }
  const rel = RELS.find((r) => rels.includes(r));
  if (!rel) return;
  if (address === '') {
    found.troubles.push({ line, message: `the ${rel} link has no href; browsers ignore it` });
    return;
  }
  const as = (attributes.get('as') ?? '').toLowerCase();
  if (rel === 'preload' && as === '') {
    found.troubles.push({ line, message: `the preload of ${address} has no “as”; browsers ignore it` });
    return;
  }
  const said = (attributes.get('fetchpriority') ?? '').toLowerCase();
  const priority = said === 'high' || said === 'low' ? said : 'auto';
  found.links.push({
    rel,
    address,
    as: rel === 'modulepreload' ? as || 'script' : as,
    crossorigin: attributes.has('crossorigin'),
    priority,
    line,
  });
}

function readImportMap(text: string, line: number, found: HtmlDocument): void {
  try {
    const { imports } = JSON.parse(text) as { imports?: Record<string, unknown> };
    for (const [name, to] of Object.entries(imports ?? {})) if (typeof to === 'string') found.imports.set(name, to);
  } catch (error) {
    found.troubles.push({ line, message: `the import map isn't JSON: ${(error as Error).message}` });
  }
}

/** `index.html` → `site`, `admin.html` → `admin`, `admin/index.html` → `admin`. */
export function realmOf(file: string): string {
  const bare = file.replace(/(^|\/)index\.html?$/, '').replace(/\.html?$/, '');
  return bare === '' ? 'site' : bare;
}
