import fs from 'node:fs';
import path from 'node:path';
import { InputError } from '../core/errors.ts';
import { parseJson } from '../core/text/json.ts';
import type { PackageDescription } from './entries/types.ts';
import { textNeeded } from './folder-files.ts';

/** What a folder's `package.json` says; nothing without one. InputError for one that holds something else. */
export function packageDescription(root: string): PackageDescription {
  const described = describedIn(root, 'package.json');
  if (described === null) return {};
  const value = parseJson(described, 'package.json');
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new InputError(
      'Not a package description',
      'It must hold one object, as in { "name": "…" }.',
      'package.json',
    );
  return value;
}

/** The text of a file that says something about the app; null without one. Throws InputError for one that can't be read. */
export function describedIn(root: string, name: string): string | null {
  if (!fs.existsSync(path.join(root, name))) return null;
  return textNeeded(root, name, 'A file that can’t be read', 'It says something about the whole app');
}
