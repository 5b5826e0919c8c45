import path from 'node:path';
import { textIfThere } from '../folder-files.ts';
import type { AroundScript } from '../graph/script-said.ts';
import { pathFrom } from '../path-from.ts';

/** What a thread is handed that finds out what scripts say. */
export interface AheadWork {
  root: string;
  /** Scripts, by their paths from the root. */
  files: string[];
  jsxImportSource: string;
}

/** What is around a script of an app without components or exports that a framework deals with. */
export function aroundScript(root: string, file: string, jsxImportSource: string): AroundScript {
  const folder = path.dirname(path.join(root, file));
  const resource = (specifier: string) => {
    const full = path.resolve(folder, specifier);
    const text = textIfThere(root, full);
    return text === null ? null : { path: pathFrom(root, full), text };
  };
  return { jsxImportSource, bindings: new Map(), without: [], resource };
}
