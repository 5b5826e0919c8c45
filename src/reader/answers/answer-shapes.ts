import type { DataCall } from '../../core/snapshot/route-types.ts';
import { carriedOperation } from '../../core/text/query-operation.ts';
import { DataCalls } from '../data/data-calls.ts';
import { readAsks } from '../data/read-asks.ts';
import { SourceText } from '../source-text.ts';
import { Declarations, type TypedModules, typedProgram } from './declarations.ts';
import type { Shape } from './shape.ts';
import { shapeOfQuery } from './shape-of-query.ts';
import { shapeOfType } from './shape-of-type.ts';
import { StatedTypes } from './stated-types.ts';

/** What the answer to a call for data looks like, as the code says: `written`, its type in the words of the code. */
export interface AnswerShape {
  written: string;
  shape: Shape;
}

/**
 * What the answers to calls for data look like, by their addresses: by the types that the code states of them, nearest to where the server is
 * asked, or by the schemas that check them. Calls of which nothing is stated are missing. `own`: the app's scripts, by their paths.
 * Files are parsed only now, with their types: readings leave those out.
 */
export function answerShapes(
  asked: readonly DataCall[],
  own: ReadonlySet<string>,
  modules: TypedModules,
): ReadonlyMap<string, AnswerShape> {
  const declarations = new Declarations(modules);
  const sheets = new Map<string, ReturnType<typeof readAsks>>();
  const sheetAt = (path: string) => {
    if (!own.has(path)) return null;
    if (!sheets.has(path)) sheets.set(path, sheetOf(path, modules));
    return sheets.get(path)!;
  };
  const calls = new DataCalls({
    paths: () => own,
    sheetAt,
    moduleOf: (from, specifier, name) => {
      const to = modules.leadsTo(from, specifier);
      if (to === null) return null;
      // Modules may only pass on what others define.
      return name === '*' || name === 'default' ? to : (declarations.home(to, name) ?? to);
    },
    paintsFirst: () => false,
  });
  const found = new Map<string, AnswerShape>();
  const look = (path: string) => {
    for (const { address, answers } of calls.of(path)) {
      const shape = answers && shapeOfType(answers.written, answers.path, declarations);
      if (shape && !found.has(address)) found.set(address, answerOf(address, { written: answers.written, shape }));
    }
  };
  const askers = new Set(asked.map((d) => d.evidence?.path ?? d.module));
  askers.forEach(look);
  // Who asks first may say nothing of what another one does that asks for the same.
  const words = new Set(asked.flatMap(({ address }) => (found.has(address) ? [] : lastWord(address))));
  for (const path of words.size > 0 ? own : []) {
    const text = askers.has(path) ? null : modules.textOf(path);
    if (text !== null && [...words].some((word) => text.includes(word))) look(path);
  }
  const texts = () => [...own].flatMap((path) => modules.textOf(path) ?? []);
  for (const { address } of asked) {
    const operation = found.has(address) ? null : carriedOperation(address);
    const shape = operation === null ? null : shapeOfQuery(operation, texts());
    if (shape) found.set(address, answerOf(address, { written: `the fields of ${operation}`, shape }));
  }
  return found;
}

/** The answer to a query of GraphQL holds what is asked for in `data` (its standard). */
function answerOf(address: string, answer: AnswerShape): AnswerShape {
  if (carriedOperation(address) === null) return answer;
  return { ...answer, shape: { is: 'object', fields: [{ name: 'data', of: answer.shape }] } };
}

/** The last word of an address that code writes: of `/api/tides/:id` that is `tides`. */
const lastWord = (address: string) => address.split('/').findLast((w) => /^[\w-]+$/.test(w)) ?? [];

function sheetOf(path: string, { textOf, told }: TypedModules) {
  const text = textOf(path);
  const typed = typedProgram(path, text);
  if (!typed) return null;
  const stated = new StatedTypes(typed.program, typed.script);
  return readAsks(typed.program, new SourceText(typed.script), told, (call, above) => stated.of(call, above));
}
