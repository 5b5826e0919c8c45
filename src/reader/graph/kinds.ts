import type { ModuleKind } from '../../core/snapshot/module-types.ts';
import { SHEET_LANGUAGE } from '../sheets/compile-sheet.ts';
import { isSingleFile } from '../single-file.ts';

export const SCRIPT = /\.([mc]?[jt]sx?)$/;

/** The kind of a module by its file's name. */
export function kindOf(file: string): ModuleKind {
  if (SCRIPT.test(file) || isSingleFile(file)) return 'script';
  if (file.endsWith('.css') || SHEET_LANGUAGE.test(file)) return 'style';
  return file.endsWith('.json') ? 'json' : 'asset';
}
