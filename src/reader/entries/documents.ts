import path from 'node:path';
import { textNeeded } from '../folder-files.ts';
import { readHtml, realmOf } from '../html-document.ts';
import { nestsTooDeep } from '../nesting.ts';
import { onNetwork } from '../resolve.ts';
import { parse } from '../script/parse.ts';
import { SourceText } from '../source-text.ts';
import { beginFile } from '../watch.ts';
import type { FoundEntry, FoundStart } from './types.ts';

/** What an HTML file starts, as an entry. InputError for a file that can't be read. */
export function fromHtml(root: string, file: string): FoundEntry {
  beginFile(file);
  const html = readHtml(textOf(root, file));
  const own = html.tags.filter((t) => !onNetwork(t.address));
  return {
    realm: realmOf(file),
    document: file,
    starts: [
      ...own.filter((t) => t.kind === 'style'),
      ...own.filter((t) => t.kind === 'script' && t.placement === 'module'),
    ]
      .map(({ address, line, kind }): FoundStart => ({ address, line, kind }))
      .concat(html.inline.filter((i) => i.module).flatMap((i) => inlineImports(i.text, i.line)))
      .map((start) => (html.base === null ? fromDocument(file, start) : start)),
    html,
    routes: [],
    rendering: 'client',
    ships: 'everything',
  };
}

/** A start with its address from the folder that is read: relative ones are meant from the document. */
function fromDocument(document: string, start: FoundStart): FoundStart {
  const folder = path.posix.dirname(document);
  const isRelative = start.imported ? start.address.startsWith('.') : !/^[/\\]|^[a-z][\w+.-]*:/i.test(start.address);
  return folder === '.' || !isRelative ? start : { ...start, address: `/${path.posix.join(folder, start.address)}` };
}

/** The text of an HTML file that may start an app. Throws InputError for one that can't be read. */
function textOf(root: string, file: string): string {
  const role = 'It may start the app';
  return textNeeded(root, file, 'An HTML file that can’t be read', role, ' Take it out, or mend it.');
}

/** What a module script written into the document imports; nothing where it can't be parsed. */
function inlineImports(text: string, line: number): FoundStart[] {
  if (nestsTooDeep(text)) return [];
  const source = new SourceText(text);
  return parse('inline.js', text).module.staticImports.map((found) => ({
    address: found.moduleRequest.value,
    line: line + source.place(found.end).line - 1,
    kind: 'script',
    imported: true,
  }));
}
