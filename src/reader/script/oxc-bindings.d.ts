/** The parser's own binding, whose results hand their texts and lists over once they are asked for. */
declare module 'oxc-parser/src-js/bindings' {
  import type { EcmaScriptModule, OxcError, ParserOptions } from 'oxc-parser';

  export function parseSync(
    path: string,
    text: string,
    options?: ParserOptions,
  ): {
    /** The tree in JSON, below `node`. */
    program: string;
    module: EcmaScriptModule;
    errors: OxcError[];
  };
}
