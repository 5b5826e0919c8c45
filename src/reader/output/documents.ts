import path from 'node:path';
import zlib from 'node:zlib';
import type { Notice } from '../../core/snapshot/types.ts';
import { fileOfAddress, withoutQuery } from '../../core/text/address.ts';
import { textIfThere } from '../folder-files.ts';
import { type HtmlDocument, readHtml } from '../html-document.ts';
import { onNetwork } from '../resolve.ts';
import { segmentOf } from '../routes/directory-routes.ts';
import { beginFile } from '../watch.ts';

/** An HTML file of an output. */
export interface OutputDocument {
  path: string;
  realm: string;
  /** Address of the page that it is. */
  pattern: string;
  html: HtmlDocument;
  /** Compressed size, and length of the text in UTF-16 units. */
  bytes: number;
  length: number;
}

const MOST_DOCUMENTS = 500;

/** HTML files of an output with the pages that they are; error pages and inner files are left aside. */
export function outputDocuments(root: string, files: string[]): OutputDocument[] {
  const pages = files
    .filter((f) => /\.html?$/.test(f) && !/^(_.*|[45]\d\d)\.html?$/.test(path.posix.basename(f)))
    .slice(0, MOST_DOCUMENTS);
  const tops = pages.filter((f) => path.posix.basename(f).startsWith('index.')).map((f) => path.posix.dirname(f));
  const taken = new Set<string>();
  const found = pages.flatMap((file): OutputDocument[] => {
    beginFile(file);
    const text = textIfThere(root, file);
    if (text === null) return [];
    const html = withBaseElement(readHtml(text));
    if (html.tags.length + html.inline.length === 0) return [];
    const pattern = patternOf(file, tops);
    if (taken.has(pattern)) return [];
    taken.add(pattern);
    const bytes = zlib.gzipSync(text).length;
    return [
      { path: file, realm: pattern === '/' ? 'site' : pattern.slice(1), pattern, html, bytes, length: text.length },
    ];
  });
  return found.sort((a, b) => (a.pattern < b.pattern ? -1 : 1));
}

/** A `base` element moves what the document names relatively. */
function withBaseElement(html: HtmlDocument): HtmlDocument {
  const { base, tags } = html;
  if (base === null || !URL.canParse(base, HERE)) return html;
  const moved = (address: string) => {
    const relative = !onNetwork(address) && !address.startsWith('/');
    return relative ? new URL(address, new URL(base, HERE)).href.replace(HERE, '') : address;
  };
  return { ...html, tags: tags.map((t) => ({ ...t, address: moved(t.address) })) };
}

/** Stands for the app's own origin. */
const HERE = 'http://own.invalid';

/** `server/app/about.html` → `/about` where `server/app/index.html` stands for `/`; `birds/[id].html` → `/birds/:id`. */
function patternOf(file: string, tops: string[]): string {
  const top = tops.filter((t) => t === '.' || file.startsWith(`${t}/`)).sort((a, b) => a.length - b.length)[0];
  const inside = top === undefined || top === '.' ? file : file.slice(top.length + 1);
  const bare = inside.replace(/\.html?$/, '').replace(/(^|\/)index$/, '');
  const segments = bare.split('/').filter((piece) => piece !== '');
  return `/${segments.flatMap((piece) => segmentOf(piece) ?? []).join('/')}`;
}

/**
 * The base address that explains most of the documents' own addresses: what has to be taken off in front so that a
 * file of the folder remains. Addresses on other hosts count where a file of the folder has the same end.
 */
export function proposeBase(documents: OutputDocument[], files: ReadonlySet<string>): string {
  const votes = new Map<string, number>();
  for (const { html } of documents) {
    for (const { address } of html.tags) {
      const base = baseOf(address, files);
      if (base !== null) votes.set(base, (votes.get(base) ?? 0) + 1);
    }
  }
  const [most] = [...votes].sort((a, b) => b[1] - a[1] || a[0].length - b[0].length);
  return most?.[0] ?? '/';
}

function baseOf(address: string, files: ReadonlySet<string>): string | null {
  const found = /^(https?:\/\/[^/]+)?\/(.*)$/i.exec(plain(address));
  if (!found) return null;
  const pieces = found[2].split('/');
  for (let skip = 0; skip < pieces.length; skip++) {
    if (!files.has(pieces.slice(skip).join('/'))) continue;
    // On another host a bare file name is too little to go by.
    if (found[1] && pieces.length - skip < 2) return null;
    return `${found[1] ?? ''}/${pieces
      .slice(0, skip)
      .map((p) => `${p}/`)
      .join('')}`;
  }
  return null;
}

/** The file that an address in a document names; null when it isn't one of the folder. */
export function fileOf(address: string, document: string, base: string, files: ReadonlySet<string>): string | null {
  const bare = plain(address);
  const inside = bare.startsWith(base)
    ? bare.slice(base.length)
    : onNetwork(bare)
      ? null
      : bare.startsWith('/')
        ? bare.slice(1)
        : path.posix.join(path.posix.dirname(document), bare);
  return inside !== null && files.has(inside) ? inside : null;
}

/** Addresses of the app's own origin that lead to no file: every such request would fail. */
export function strayAddresses(documents: OutputDocument[], base: string, files: ReadonlySet<string>): Notice[] {
  return documents.flatMap(({ path: file, html }) =>
    html.tags
      .filter((t) => !onNetwork(t.address) && fileOf(t.address, file, base, files) === null)
      .map((t): Notice => {
        const message = `${t.address} (line ${t.line}) is no file of this folder under the base address ${base}; the request would fail`;
        return { kind: 'base', path: file, message };
      }),
  );
}

function plain(address: string): string {
  return fileOfAddress(withoutQuery(address));
}
