import type { EcmaScriptModule, OxcError, ParserOptions } from 'oxc-parser';
import { parseSync } from 'oxc-parser/src-js/bindings';
import type { SyntaxNode } from '../syntax.ts';
import { rawParse, rawRecords } from './raw-parse.ts';

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

/** What a script imports and exports, and its errors: the same for those who don't look at its tree, which costs less. */
export function parseRecords(path: string, text: string, options?: ParserOptions): Omit<Parsed, 'program'> {
  return rawRecords(path, text, options) ?? parseByText(path, text, options);
}

/** The same with a tree that few ask for: it is made where it is asked for, by parsing once more. */
export function parseSparingly(path: string, text: string, options?: ParserOptions): Parsed {
  let whole: Parsed | null = null;
  const records = parseRecords(path, text, options);
  const program = () => {
    whole ??= parse(path, text, options);
    return whole.program();
  };
  return { module: records.module, errors: records.errors, program };
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
