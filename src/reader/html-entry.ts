import path from 'node:path';
import { type DefaultTreeAdapterTypes, parse } from 'parse5';
import type { ScriptPlacement } from '../core/snapshot/types.ts';

export interface HtmlScript {
  id: string;
  address: string;
  placement: ScriptPlacement;
  line: number;
}

export interface HtmlEntry {
  /** Addresses of module scripts, in document order. */
  modules: { address: string; line: number }[];
  styles: { address: string; line: number }[];
  classic: HtmlScript[];
}

/** Reads the scripts and style sheets that an HTML file starts. */
export function readHtml(text: string): HtmlEntry {
  const entry: HtmlEntry = { modules: [], styles: [], classic: [] };
  const visit = (node: DefaultTreeAdapterTypes.Node, inBody: boolean) => {
    if ('tagName' in node) meet(node, inBody, entry);
    if ('childNodes' in node) for (const child of node.childNodes) visit(child, inBody || node.nodeName === 'body');
  };
  visit(parse(text, { sourceCodeLocationInfo: true }), false);
  return entry;
}

function meet(node: DefaultTreeAdapterTypes.Element, inBody: boolean, entry: HtmlEntry): void {
  const attributes = new Map(node.attrs.map((a) => [a.name, a.value]));
  const line = node.sourceCodeLocation?.startLine ?? 1;
  if (node.tagName === 'link' && attributes.get('rel') === 'stylesheet') {
    entry.styles.push({ address: attributes.get('href') ?? '', line });
  }
  const address = attributes.get('src');
  if (node.tagName !== 'script' || !address) return;
  if (attributes.get('type') === 'module') {
    entry.modules.push({ address, line });
    return;
  }
  const placement = attributes.has('async')
    ? 'async'
    : attributes.has('defer')
      ? 'defer'
      : inBody
        ? 'end of body'
        : 'blocking';
  const id = attributes.get('id') ?? path.posix.basename(address).replace(/\.\w+$/, '');
  entry.classic.push({ id, address, placement, line });
}

/** `index.html` → `site`, `admin.html` → `admin`, `admin/index.html` → `admin`. */
export function realmOf(file: string): string {
  const bare = file.replace(/(^|\/)index\.html?$/, '').replace(/\.html?$/, '');
  return bare === '' ? 'site' : bare;
}
