import fs from 'node:fs';
import path from 'node:path';
import { InputError } from '../../core/errors.ts';
import { documentsOf, fromHtml } from './documents.ts';
import type { FoundEntry } from './types.ts';
import { fromModules } from './usual.ts';

/**
 * Entries by files that a person named: each document is one, all scripts and styles together another. InputError for a file
 * that isn't there or is nothing that starts an app.
 */
export function givenEntries(root: string, files: readonly string[]): FoundEntry[] {
  const named = files.map((file) => inside(root, file));
  const documents = named.filter((f) => isDocument(f)).map((f) => fromHtml(root, f));
  const modules = named.filter((f) => !isDocument(f));
  if (modules.length === 0) return documents;
  const others = documents.length > 0 ? [] : documentsOf(root);
  return [...documents, fromModules(modules, others)];
}

function isDocument(file: string): boolean {
  return /\.html?$/.test(file);
}

/** The file's path from the folder. */
function inside(root: string, file: string): string {
  const relative = path.posix.normalize(file.replaceAll('\\', '/')).replace(/^\.?\/+/, '');
  const full = path.join(root, relative);
  const isThere = fs.existsSync(full) && fs.statSync(full).isFile();
  if (!isThere || relative.startsWith('..'))
    throw new InputError(
      'No such file',
      `${file} isn’t in the folder. Name files from there, as in src/main.ts.`,
      'starts',
    );
  if (!/\.([mc]?[jt]sx?|vue|svelte|css|html?)$/.test(relative))
    throw new InputError(
      'Not what starts an app',
      'Name scripts, styles, components or HTML files.',
      `starts: ${file}`,
    );
  return relative;
}
