import type { EcmaScriptModule, OxcError, ParserOptions } from 'oxc-parser';
import { parseSync } from 'oxc-parser/src-js/bindings';
import type { SyntaxNode } from '../syntax.ts';

export interface Parsed {
  module: EcmaScriptModule;
  errors: OxcError[];
  /** The tree; made when it is asked for first, which costs more than parsing. */
  program: () => SyntaxNode;
}

/**
 * Parses a script. The parser writes its tree as a text, whether anybody wants it or not, and keeps that until it is asked for or the
 * program comes to rest; a reading never rests, so the text is taken at once.
 */
export function parse(path: string, text: string, options?: ParserOptions): Parsed {
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
