import MagicString from 'magic-string';
import { type DefaultTreeAdapterMap, parse } from 'parse5';
import { mediaQuery } from '../../core/load/media-query.ts';
import type { LinkHint, LoadProgram, MarkupItem, ScriptMode } from '../../core/load/types.ts';
import { escapedAttribute } from '../../core/text/html-text.ts';

type Element = DefaultTreeAdapterMap['element'];
type Node = DefaultTreeAdapterMap['childNode'];

/** Links whose place the load program takes. */
const TAKEN_RELS = ['stylesheet', 'preload', 'modulepreload', 'prefetch', 'preconnect', 'dns-prefetch'];

const MODES: Record<ScriptMode, string> = {
  blocking: '',
  async: ' async',
  defer: ' defer',
  module: ' type="module"',
  'module-async': ' type="module" async',
};

/** Where code takes a place to draw in out of its document, by the platform’s own calls and those by which apps are mounted. */
const PLACE =
  /\bgetElementById\s{0,9}\(\s{0,9}["'`]([\w-]{1,80})["'`]|\b(?:querySelector|mount|hydrate)\s{0,9}\(\s{0,9}["'`]#([\w-]{1,80})["'`]|\b(?:el|target)\s{0,9}:\s{0,9}["'`]#([\w-]{1,80})["'`]/g;

/** A document of nothing but places to draw in, as the code of its entry asks for them, for apps whose own document isn’t a file. */
export function bareDocument(code: readonly string[]): string {
  const ids = code.flatMap((text) => [...text.matchAll(PLACE)].map(([, ...given]) => given.find((id) => id)!));
  const places = [...new Set(ids)].map((id) => `<div id="${id}"></div>`).join('');
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>App</title></head><body>${places}</body></html>`;
}

/**
 * The document of a landing: the app’s own with its scripts and links replaced by those of the load program, in their order. Classic scripts
 * that are written out in it stay as they are; so do images and texts. `last`: what stands at the end of its head.
 */
export function documentOf(html: string, program: LoadProgram, last = ''): string {
  const out = new MagicString(html);
  const places = { head: -1, body: -1 };
  const visit = (node: Node) => {
    if (!('tagName' in node)) return;
    const { sourceCodeLocation: at } = node;
    if (at && isReplaced(node)) out.remove(at.startOffset, at.endOffset);
    else {
      if (node.tagName === 'head' && at?.endTag) places.head = at.endTag.startOffset;
      if (node.tagName === 'body' && at?.endTag) places.body = at.endTag.startOffset;
      node.childNodes.forEach(visit);
    }
  };
  parse(html, { sourceCodeLocationInfo: true }).childNodes.forEach(visit);
  const opened = program.document.markup.findIndex((m) => m.tag === 'body');
  const head = program.document.markup.slice(0, opened < 0 ? undefined : opened);
  const body = opened < 0 ? [] : program.document.markup.slice(opened);
  const tags = (items: readonly MarkupItem[]) => items.map((item) => tagOf(item, program)).join('\n');
  const inHead = `${tags(head)}\n${last}\n`;
  if (places.head >= 0) out.appendLeft(places.head, inHead);
  else out.prependLeft(afterDoctype(html), inHead);
  const inBody = tags(body);
  if (places.body >= 0) out.appendLeft(places.body, inBody);
  else out.append(inBody);
  return out.toString();
}

function afterDoctype(html: string): number {
  return /^\s*<!doctype[^>]*>/i.exec(html)?.[0].length ?? 0;
}

function isReplaced(element: Element): boolean {
  const attribute = (name: string) => element.attrs.find((a) => a.name === name)?.value;
  if (element.tagName === 'script')
    return attribute('src') !== undefined || ['module', 'speculationrules'].includes(attribute('type') ?? '');
  if (element.tagName !== 'link') return false;
  return (attribute('rel') ?? '').split(/\s+/).some((rel) => TAKEN_RELS.includes(rel.toLowerCase()));
}

function tagOf(item: MarkupItem, program: LoadProgram): string {
  switch (item.tag) {
    case 'link':
      return linkTag(item, program);
    case 'script':
      return program.groups[item.group].resources
        .filter((r) => program.resources[r].type === 'script')
        .map((r) => scriptTag(program.resources[r].address, MODES[item.mode], item.fetchpriority))
        .join('\n');
    case 'inline':
      return item.follow
        .flatMap(({ do: effect }) => (effect.kind === 'script' ? [afterLoad(effect.group, program)] : []))
        .join('\n');
    // Documents that are fetched ahead are of the next landing; the others stand in the app’s own document.
    case 'rules':
    case 'body':
    case 'text':
    case 'img':
      return '';
  }
}

function scriptTag(address: string, how: string, priority?: string): string {
  return `<script${how} src="${escapedAttribute(address)}"${priority ? ` fetchpriority="${priority}"` : ''}></script>`;
}

/** A script that is added to the page after its load event. */
function afterLoad(group: number, { groups, resources }: LoadProgram): string {
  const addresses = groups[group].resources.map((r) => resources[r].address);
  const add = `document.head.append(Object.assign(document.createElement('script'),{src}))`;
  return `<script>addEventListener('load',()=>{for(const src of ${inScript(addresses)})${add}})</script>`;
}

/** As it may stand in a script of a document. */
function inScript(value: unknown): string {
  return JSON.stringify(value).replace(/</g, '\\u003c');
}

function linkTag(link: LinkHint, program: LoadProgram): string {
  const attributes = attributesOf(link, program);
  const written = Object.entries(attributes).map(([name, value]) =>
    value === '' ? name : `${name}="${escapedAttribute(value)}"`,
  );
  return `<link ${written.join(' ')}>`;
}

/** A link as a field of a header (RFC 8288). */
export function linkField(link: LinkHint, program: LoadProgram): string {
  const { href, ...rest } = attributesOf(link, program);
  const written = Object.entries(rest).map(([name, value]) => (value === '' ? name : `${name}="${value}"`));
  return [`<${href}>`, ...written].join('; ');
}

function attributesOf(link: LinkHint, { resources }: LoadProgram): { href: string } & Record<string, string> {
  const { rel, as, crossorigin, fetchpriority, media, origin } = link;
  const href = link.resource < 0 ? (origin ?? '') : resources[link.resource].address;
  const query = media ? mediaQuery(media) : null;
  return {
    ...{ rel, href },
    ...(rel === 'preload' && as ? { as } : {}),
    ...(crossorigin && rel !== 'modulepreload' && rel !== 'prefetch' ? { crossorigin: '' } : {}),
    ...(fetchpriority && fetchpriority !== 'auto' ? { fetchpriority } : {}),
    ...(query === null ? {} : { media: query }),
  };
}
