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
  /** Parses a text that stands in a block of memory, in UTF-8, and leaves the tree there. */
  export function parseRawSync(
    path: string,
    block: Uint8Array,
    from: number,
    bytes: number,
    options: ParserOptions,
  ): void;
  /** How far the next multiple of the alignment is from the beginning of some memory, in bytes. */
  export function getBufferOffset(memory: Uint8Array): number;
  /** Whether the machine has numbers of the size and order that reading the parser's memory takes. */
  export function rawTransferSupported(): boolean;
}

/** Sizes and places of the memory that the parser leaves its tree in, in bytes. */
declare module 'oxc-parser/src-js/generated/constants' {
  export const BLOCK_SIZE: number;
  export const BLOCK_ALIGN: number;
  export const BUFFER_SIZE: number;
  export const ACTIVE_SIZE: number;
  export const IS_TS_FLAG_POS: number;
  export const DATA_POINTER_POS_32: number;
}

declare module 'oxc-parser/src-js/generated/deserialize/js' {
  export { deserialize } from 'oxc-parser/src-js/generated/deserialize/ts';
}

declare module 'oxc-parser/src-js/generated/deserialize/ts' {
  import type { EcmaScriptModule, OxcError } from 'oxc-parser';

  /** Makes objects of the tree that the parser left in its memory. */
  export function deserialize(
    memory: Uint8Array & { int32: Int32Array; float64: Float64Array },
    text: string,
    from: number,
    bytes: number,
  ): {
    program: { type: string; start: number; end: number; [field: string]: unknown };
    module: EcmaScriptModule;
    errors: OxcError[];
  };
}
