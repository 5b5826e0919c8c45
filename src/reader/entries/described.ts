import fs from 'node:fs';
import path from 'node:path';
import { InputError } from '../../core/errors.ts';
import { type AppNotes, NOTES_FILE } from '../../core/formats/app-notes.ts';
import { textIfThere } from '../folder-files.ts';
import { readHtml } from '../html-document.ts';
import type { FoundEntry } from './types.ts';

/** Entries as the app's notes describe them. Throws InputError for a file that isn't there. */
export function describedEntries(root: string, { entries }: AppNotes): FoundEntry[] {
  return entries.map(({ realm, document, modules }, i) => {
    const at = `${NOTES_FILE}: entries[${i}]`;
    for (const file of [...(document === null ? [] : [document]), ...modules])
      if (!fs.existsSync(path.join(root, file)))
        throw new InputError(
          'No such file',
          `${file} isn’t in the folder. Name files from there, as in src/main.ts.`,
          at,
        );
    const html = document === null ? null : textIfThere(root, document);
    return {
      ...{ realm, document, routes: [], rendering: 'client', ships: 'everything' },
      html: html === null ? null : readHtml(html),
      starts: modules.map((file) => ({ address: `/${file}`, line: 1, kind: /\.css$/.test(file) ? 'style' : 'script' })),
    };
  });
}
