import type { WorkerStart } from '../../core/snapshot/module-types.ts';
import type { AskSheet } from '../data/ask-sheet.ts';
import type { FileGlob } from '../file-globs.ts';
import type { FoundImport } from '../found-import.ts';
import type { ComponentUse } from '../parts/component-uses.ts';
import type { DrawnImage } from '../parts/images.ts';
import type { InnerActs } from '../parts/inner-marks.ts';
import type { Owners } from '../parts/owners.ts';
import type { RouteSheet } from '../routes/expressions.ts';
import type { RunSheet } from '../runs/run-sheet.ts';

/** A place at which a script starts another one beside it. */
export interface StartedScript extends Omit<WorkerStart, 'from'> {
  line: number;
}

/** What a script says, as far as a reading asks. */
export interface ParsedScript {
  imports: FoundImport[];
  /** Scripts that run in workers: `new URL('./x', import.meta.url)` handed to a worker, or what an import makes one of (`./x?worker`). */
  workers: StartedScript[];
  /** Imports whose specifier isn't a constant. */
  unclear: { specifier: string; line: number; reason: string; leftOut: boolean }[];
  /** What it says about routes; null where that is nothing. */
  routes: RouteSheet | null;
  /** Components that it draws. */
  uses: ComponentUse[];
  /** What people do in the components that it defines. */
  innerActs: InnerActs;
  /** Which of its names draw and ask for what stands under which; null where nothing stands under a name. */
  owners: Owners | null;
  /** What it says about calls for data; null where that is nothing. */
  asks: AskSheet | null;
  /** Specifiers of what it mounts as a whole app. */
  mounts: string[];
  /** Images that it draws whenever it is drawn. */
  images: DrawnImage[];
  /** When its code runs, as far as it says so; null for what is installed. */
  runs: RunSheet | null;
  /** Names of elements that stand for a component of it. */
  elements: string[];
  /** Specifiers of components that only blocks of a template ask for which are drawn later, with the elements that others ask for. */
  later: { specifiers: Set<string>; elements: Set<string>; atOnce: Set<string> } | null;
  /** What of it couldn't be understood. */
  told: { line: number; message: string }[];
  /** Names that it passes on, by specifier, and those that it defines. */
  exports: ScriptExports;
  /** Files that it names by address: `new URL('./x', import.meta.url)`. */
  assets: (StartedScript & { start: number; end: number })[];
  /** Deferred imports of any file that fits: constant beginning and end around something computed. */
  globs: FoundGlob[];
  /** Files that it asks for by a pattern. */
  fileGlobs: FileGlob[];
  /** Templates and styles that a component's description names. */
  resources: { specifier: string }[];
  /** Where it waits for something else than an import while it starts. */
  waits: { line: number }[];
  /** Without imports and exports of its own, it gives and takes by `require`, `module` and `exports`. */
  commonJs: boolean;
  /** Plain JavaScript: types and markup syntax compiled away. */
  code: string;
  /** Specifiers of the import and export statements in that; of none where code outside of the script may use what it imports. */
  stated: ReadonlySet<string>;
  error: { line: number; message: string } | null;
}

export interface ScriptExports {
  named: { name: string; specifier: string; imported: string }[];
  stars: string[];
  own: string[];
}

export interface FoundGlob {
  prefix: string;
  suffix: string;
  found: FoundImport;
}
