import type { EcmaScriptModule, OxcError, ParserOptions } from 'oxc-parser';
import { getBufferOffset, parseRawSync, rawTransferSupported } from 'oxc-parser/src-js/bindings';
import {
  ACTIVE_SIZE,
  BLOCK_ALIGN,
  BLOCK_SIZE,
  BUFFER_SIZE,
  DATA_POINTER_POS_32,
  IS_TS_FLAG_POS,
} from 'oxc-parser/src-js/generated/constants';
import { deserialize as scriptTree } from 'oxc-parser/src-js/generated/deserialize/js';
import { deserialize as typedTree } from 'oxc-parser/src-js/generated/deserialize/ts';
import type { SyntaxNode } from '../syntax.ts';

/** A script as its parser left it in memory. */
export interface RawParsed {
  program: SyntaxNode;
  module: EcmaScriptModule;
  errors: OxcError[];
}

/**
 * Longer texts (in UTF-16 units) are parsed the other way: what the parser has written to once stays taken up, and it writes some fifty times as much as a
 * text is long.
 */
const LONGEST = 1_000_000;

/** Memory in which the parser leaves its tree, with the views of it that making objects of a tree takes (the parser package’s own form). */
type Block = Uint8Array & { int32: Int32Array; float64: Float64Array; whole: Uint8Array };

/** Whether setting memory aside takes none of it until it is written to: elsewhere the system keeps all of it ready. */
const PROMISES_MEMORY = process.platform !== 'win32';

/** What the parser and this program share; null where there can’t be such a thing, undefined before it was tried. */
let shared: Block | null | undefined = null;

/**
 * From now on trees are made straight from the parser’s memory. For processes that start no others: systems refuse to double one that has set aside more
 * memory than the machine has, and each thread sets aside as much again.
 */
export function shareParserMemory(): void {
  shared ??= undefined;
}

const encoder = new TextEncoder();

/**
 * Parses a script into a tree that is made straight from the parser’s memory: a fifth of the time that it takes by way of a text. Null where that
 * isn’t done: unless `shareParserMemory` was called, on machines of another kind, where so much memory can’t be set aside (though next to nothing of it is used), and for long texts.
 */
export function rawParse(path: string, text: string, options: ParserOptions = {}): RawParsed | null {
  return made(path, text, options, () => {});
}

/**
 * The same without the tree: what a script imports and exports, and its errors. Making objects of trees takes a third of the time of parsing, and most
 * texts are only parsed for this.
 */
export function rawRecords(path: string, text: string, options: ParserOptions = {}): Omit<RawParsed, 'program'> | null {
  return made(path, text, options, ({ int32 }) => {
    const data = int32[DATA_POINTER_POS_32];
    for (const list of [DIRECTIVES, STATEMENTS, COMMENTS]) int32[(data + list + LENGTH) >> 2] = 0;
  });
}

/** Where the lists of a program lie in what the parser leaves, and in such a list its length, in bytes (form of the parser package’s version, checked by tests). */
const [DIRECTIVES, STATEMENTS, COMMENTS, LENGTH] = [88, 112, 144, 8];

/** What the parser left in memory, as objects. `prepare`: what is done with the memory before. */
function made(path: string, text: string, options: ParserOptions, prepare: (left: Block) => void): RawParsed | null {
  if (text.length > LONGEST) return null;
  if (shared === undefined) shared = PROMISES_MEMORY && rawTransferSupported() ? alignedBlock() : null;
  if (shared === null) return null;
  const most = text.length * 3;
  const from = ACTIVE_SIZE - most;
  const room = new Uint8Array(shared.buffer, shared.byteOffset + from, most);
  const { written } = encoder.encodeInto(text, room);
  parseRawSync(path, shared.whole, from, written, options);
  prepare(shared);
  const inObjects = shared[IS_TS_FLAG_POS] === 0 ? scriptTree : typedTree;
  const { program, module, errors } = inObjects(shared, text, from, written);
  return { program, module, errors };
}

/** Where memory can’t be had at such a place at once, it is asked for so often. */
const TRIES = 4;

/**
 * A block of memory that begins at a multiple of its alignment, as the parser wants it. The language lets nobody choose a place: a larger piece mostly has
 * such a block in it, and otherwise the next one does, after one of the size that is missing. The pages are only set aside until something is written to them.
 */
function alignedBlock(): Block | null {
  // What is let go might be given out again.
  const spacers: ArrayBuffer[] = [];
  try {
    for (let tried = 0; tried < TRIES; tried++) {
      const piece = new ArrayBuffer(BLOCK_ALIGN);
      const offset = getBufferOffset(new Uint8Array(piece));
      if (offset + BLOCK_SIZE <= piece.byteLength)
        return Object.assign(new Uint8Array(piece, offset, BUFFER_SIZE), {
          int32: new Int32Array(piece, offset, BUFFER_SIZE / 4),
          float64: new Float64Array(piece, offset, BUFFER_SIZE / 8),
          whole: new Uint8Array(piece, offset, BLOCK_SIZE),
        });
      spacers.push(new ArrayBuffer(BLOCK_ALIGN - offset));
    }
  } catch {
    // So much can't be set aside.
  }
  return null;
}
