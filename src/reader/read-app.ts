import path from 'node:path';
import type { ReadAs } from '../core/snapshot/read-as.ts';
import type { CorrectedRoute } from '../core/snapshot/route-types.ts';
import { filesBelow } from './files-below.ts';
import { textIfThere, textInside } from './folder-files.ts';
import type { ReadProgress } from './graph/source-graph.ts';
import { readOutput } from './output/read-output.ts';
import { mapAddress } from './output/source-map.ts';
import { appName, type Reading, readNotes, readSource, realFolder } from './read-source.ts';

export interface ReadOptions {
  as?: ReadAs;
  /** Base address of an output, where the proposed one is wrong. */
  base?: string;
  progress?: ReadProgress;
  /** The folder around an app whose files may be read too. */
  workspace?: string;
  /** Files of the folder that start the app, where what is found is wrong or nothing. */
  starts?: readonly string[];
  /** Routes that a person corrected since the folder was read. */
  corrected?: readonly CorrectedRoute[];
}

/** Reads a folder, be it an app's sources or what a production build made of them. */
export function readApp(
  folder: string,
  { as = 'tell by content', base, progress, workspace, starts = [], corrected }: ReadOptions = {},
): Reading {
  const root = realFolder(folder);
  if (as === 'sources' || (as === 'tell by content' && (starts.length > 0 || !looksBuilt(root))))
    return readSource(folder, { progress, workspace, starts, corrected });
  const began = performance.now();
  const read = readOutput(root, outputName(root), readNotes(root), progress, base);
  return { ...read, ms: performance.now() - began };
}

/** The folder of an output is mostly called after the build; the app is the folder around it. */
function outputName(root: string): string {
  const name = appName(root);
  return /^(\..*|dist|build|out|output|public|www)$/.test(name) ? path.basename(path.dirname(root)) : name;
}

const ENOUGH = 40;

/** What only the description of a package or workspace of sources says. */
const OF_SOURCES = ['name', 'workspaces', 'scripts', 'dependencies', 'devDependencies'];

/** Whether a folder holds a production output: no description of a package, but documents and scripts with maps or as only builds write them. */
function looksBuilt(root: string): boolean {
  const described = JSON.parse(description(root));
  if (OF_SOURCES.some((key) => key in described)) return false;
  const files = filesBelow(root);
  const scripts = files.filter((f) => /\.m?js$/.test(f));
  if (!files.some((f) => /\.html?$/.test(f)) || scripts.length === 0) return false;
  if (files.some((f) => /\.(m?js|css)\.map$/.test(f))) return true;
  if (files.some((f) => /\.(tsx?|jsx|vue|svelte)$/.test(f) && !f.endsWith('.d.ts'))) return false;
  return scripts.slice(0, ENOUGH).some((f) => isBuilt(textIfThere(root, f) ?? ''));
}

/** A comment that names a map, or lines as only a program writes them. */
function isBuilt(text: string): boolean {
  return mapAddress(text) !== null || (text.length > 1000 && text.length / text.split('\n').length > 400);
}

function description(root: string): string {
  try {
    const text = textInside(root, 'package.json');
    const value = JSON.parse(text);
    return typeof value === 'object' && value !== null ? text : '{}';
  } catch {
    return '{}';
  }
}
