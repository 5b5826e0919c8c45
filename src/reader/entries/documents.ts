import fs from 'node:fs';
import path from 'node:path';
import { entriesOf } from '../files-below.ts';
import { textNeeded } from '../folder-files.ts';
import { readHtml, realmOf } from '../html-document.ts';
import { nestsTooDeep } from '../nesting.ts';
import { onNetwork } from '../resolve.ts';
import { parseRecords } from '../script/parse.ts';
import { servedPath } from '../served-files.ts';
import { SourceText } from '../source-text.ts';
import { beginFile } from '../watch.ts';
import type { FoundEntry, FoundStart } from './types.ts';

/** The HTML files of a folder and of those in it, each as an entry. */
export function documentsOf(root: string): FoundEntry[] {
  return htmlFiles(root).map((file) => fromHtml(root, file));
}

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
      .map((start) => (html.base === null ? fromDocument(file, start) : start))
      .map((start) => asServed(root, start)),
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

/** A start that lies in the folder of files that are served as they are, with its address from the folder that is read. */
function asServed(root: string, start: FoundStart): FoundStart {
  const served = start.imported ? null : servedPath(root, start.address);
  return served === null ? start : { ...start, address: `/${path.relative(root, served).replaceAll('\\', '/')}` };
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
  return parseRecords('inline.js', text).module.staticImports.map((found) => ({
    address: found.moduleRequest.value,
    line: line + source.place(found.end).line - 1,
    kind: 'script',
    imported: true,
  }));
}

/** Folders whose documents other programs have written. */
const NO_SOURCES = new Set([
  'node_modules',
  'dist',
  'build',
  'out',
  'coverage',
  'playwright-report',
  'storybook-static',
]);

/** HTML files at the top and one folder down. */
function htmlFiles(root: string): string[] {
  const files: string[] = [];
  for (const entry of fs.readdirSync(root, { withFileTypes: true })) {
    if (entry.isFile() && /\.html?$/.test(entry.name)) files.push(entry.name);
    if (!entry.isDirectory() || entry.name.startsWith('.') || NO_SOURCES.has(entry.name)) continue;
    for (const inner of entriesOf(path.join(root, entry.name))) {
      if (inner.isFile() && /\.html?$/.test(inner.name)) files.push(`${entry.name}/${inner.name}`);
    }
  }
  return files.sort();
}
