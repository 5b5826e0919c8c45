import type { FoundImport } from '../found-import.ts';
import type { SyntaxNode } from '../syntax.ts';

/** A component that is written in one file, taken apart. */
export interface ComponentFile {
  /** Its scripts alone, everything else blanked, so that places stay where they are in the file. */
  script: string;
  /** A name for the script whose ending tells the language. */
  scriptPath: string;
  /** The template in the form of parsed markup; null without one, or where it can't be parsed. */
  drawn: SyntaxNode | null;
  /** Names that stand for components in the template, with where they come from. */
  bindings: ReadonlyMap<string, string>;
  /** What its compiler makes of it: a script with its imports, in the language of the script. */
  compiled: string | null;
  /** What its template weighs where it isn't compiled. */
  rest: string;
  /** Style sheets in it. */
  styles: ComponentStyle[];
  /** The rest of the file with everything else blanked. */
  markup: string;
  /** Imports that stand outside of its scripts, or in the place of those there. */
  imports?: FoundImport[];
  /** Why it isn't compiled, with the line. */
  told: { line: number; message: string } | null;
}

export interface ComponentStyle {
  text: string;
  /** The language: `css`, `scss`, `sass`, `less`, or another one. */
  lang: string;
  /** The file that holds it, as the component names it. */
  src: string | null;
  line: number;
}
