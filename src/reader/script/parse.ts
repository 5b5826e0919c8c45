import type { EcmaScriptModule, OxcError, ParserOptions } from 'oxc-parser';
import { parseSync } from 'oxc-parser/src-js/bindings';
import type { SyntaxNode } from '../syntax.ts';
import { rawParse } from './raw-parse.ts';

export interface Parsed {
  module: EcmaScriptModule;
  errors: OxcError[];
  /** The tree. */
  program: () => SyntaxNode;
}

/** Parses a script. */
export function parse(path: string, text: string, options?: ParserOptions): Parsed {
  const raw = rawParse(path, text, options);
  return raw ? { ...raw, program: () => raw.program } : parseByText(path, text, options);
}

/**
 * The same where the parser’s memory can’t be read. The parser writes its tree as a text, whether anybody wants it or not, and keeps that until it is asked for or the
 * program comes to rest; a reading never rests, so the text is taken at once. Making the tree of it costs more than parsing, so it is made when it is asked for
 * first.
 */
export function parseByText(path: string, text: string, options?: ParserOptions): Parsed {
  const raw = parseSync(path, text, options);
  let written: string | null = raw.program;
  let tree: SyntaxNode | null = null;
  const program = () => {
    tree ??= treeOf(written!);
    written = null;
    return tree;
  };
  return { module: raw.module, errors: raw.errors, program };
}

/** Numbers too large for JSON and patterns are left as the places that name them: nobody asks for their values. */
function treeOf(written: string): SyntaxNode {
  return (JSON.parse(written) as { node: SyntaxNode }).node;
}
