import fs from 'node:fs';
import path from 'node:path';
import { InputError } from '../../core/errors.ts';
import { NOTES_FILE } from '../../core/formats/app-notes.ts';
import { entriesOf, filesBelow } from '../files-below.ts';
import { textInside, Unreadable } from '../folder-files.ts';
import { readHtml, realmOf } from '../html-document.ts';
import { nestsTooDeep } from '../nesting.ts';
import { onNetwork } from '../resolve.ts';
import { parse } from '../script/parse.ts';
import { SourceText } from '../source-text.ts';
import { beginFile } from '../watch.ts';
import { angularEntries } from './angular.ts';
import { islandEntries } from './islands.ts';
import { nextEntries } from './next.ts';
import { nuxtEntries } from './nuxt.ts';
import { routeModuleEntries } from './route-modules.ts';
import { svelteEntries } from './svelte.ts';
import type { FoundEntry, FoundStart, PackageDescription } from './types.ts';

const ALL_OF_IT = { rendering: 'client', ships: 'everything' } as const;

const USUAL = ['main', 'index', 'app', 'client', 'entry'].flatMap((name) =>
  ['tsx', 'ts', 'jsx', 'js', 'mjs'].flatMap((extension) => [`src/${name}.${extension}`, `${name}.${extension}`]),
);

/** Finds what starts an app: HTML files with scripts, else the described or usual entry module. */
export function findEntries(root: string, description: PackageDescription): FoundEntry[] {
  const described = angularEntries(root);
  if (described.length > 0) return described;
  const html = htmlFiles(root).map((file) => fromHtml(root, file));
  const started = html.filter((e) => e.starts.length > 0);
  if (started.length > 0) return started;
  for (const find of [routeModuleEntries, islandEntries, svelteEntries, nuxtEntries, nextEntries]) {
    const byFolders = find(root, description);
    if (byFolders.length > 0) return byFolders;
  }
  const named = [description.module, description.main].filter((m): m is string => typeof m === 'string');
  const file = [...named, ...USUAL].find(
    (f) => fs.existsSync(path.join(root, f)) && fs.statSync(path.join(root, f)).isFile(),
  );
  if (file) {
    const starts: FoundStart[] = [{ address: `/${file}`, line: 1, kind: 'script' }];
    return [{ realm: 'site', document: null, starts, html: null, routes: [], ...ALL_OF_IT }];
  }
  const sources = sourcesBelow(root);
  if (sources.length === 0)
    throw new InputError(
      'No sources',
      'The folder has no HTML, script or style files. Name the folder that holds package.json or index.html.',
      path.basename(root),
    );
  const pages = sources.filter((f) => /(^|\/)(pages?|views?|screens?|routes?)\/|[pP]age\.\w+$/.test(f));
  const seen =
    pages.length > 0 ? ` ${pages.length} files look like pages, such as ${pages.slice(0, 2).join(' and ')}.` : '';
  throw new InputError(
    'No entry',
    `There are sources, but no HTML file with a module script, no folder of routes that is known, and none of ${USUAL.slice(0, 4).join(', ')} …${seen} Say in ${NOTES_FILE} what starts the app: { "entries": [{ "modules": ["src/main.ts"] }] }`,
    path.basename(root),
  );
}

function fromHtml(root: string, file: string): FoundEntry {
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
    ...ALL_OF_IT,
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
  try {
    return textInside(root, file);
  } catch (error) {
    if (!(error instanceof Unreadable)) throw error;
    throw new InputError(
      'An HTML file that can’t be read',
      `It may start the app, but ${error.reason}. Take it out, or mend it.`,
      file,
    );
  }
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

/** Scripts, styles and documents below a folder, a few folders deep. */
function sourcesBelow(root: string): string[] {
  return filesBelow(root, '', 6).filter((f) => !/(^|\/)\./.test(f) && /\.([mc]?[jt]sx?|css|html?|vue|svelte)$/.test(f));
}
