import type { SourceText } from '../source-text.ts';
import { isFunction, nameOf, type SyntaxNode } from '../syntax.ts';
import { addressOf } from './address-of.ts';
import type { AskSheet, Place } from './ask-sheet.ts';
import { calledAs, dotted, nameOfFunction } from './function-names.ts';
import { endpointIn } from './graphql.ts';
import { noteListening, noteMappedActions, runByEffect } from './messages.ts';

/** What any module has that speaks of messages, contexts or clients by a convention. */
export const SPEAKS =
  /\b(?:take\w*|throttle|debounce|ofType|start(?:App)?Listening|addListener|createContext|useContext|use|inject|getContext|mapActions|connect)\s*[<(]|saga|apollo|urql|graphql|relay/;
/** Notes what a call says by conventions of packages. Gives whether it is none beside that. */
export function noteSpoken(
  node: SyntaxNode,
  callee: string,
  above: readonly SyntaxNode[],
  { asks, parameters, onAct }: Place,
  { source, sheet }: { source: SourceText; sheet: AskSheet },
): boolean {
  const given = node.arguments as SyntaxNode[];
  noteListening(node, callee, above, sheet);
  noteContext(callee, given, above, sheet);
  noteMappedActions(callee, given, source, sheet);
  noteConnected(callee, given, sheet);
  const endpoint = endpointIn(node, callee, sheet.imports);
  if (endpoint) sheet.endpoint ??= addressOf(endpoint, []);
  const run = runByEffect(callee, given, sheet);
  const ran = run && calledAs(run.fn, above);
  if (!run || ran === null) return false;
  const args = run.args.map((a) => addressOf(a, parameters));
  asks.push({ callee: ran, args, line: source.place(node.start).line, onAct });
  return true;
}

/** What makes a context, and what gives what one holds, by the names that component systems give them. */
const MAKES_CONTEXT = /^(React\.)?createContext$/;
const GIVES_CONTEXT = /^((React\.)?useContext|use|inject|getContext)$/;

/** Notes contexts of the module, and functions of it that give what they hold. */
function noteContext(
  callee: string,
  given: readonly SyntaxNode[],
  above: readonly SyntaxNode[],
  { contexts }: AskSheet,
): void {
  if (MAKES_CONTEXT.test(callee)) {
    const name = nameOf(above.findLast((n) => n.type === 'VariableDeclarator')?.id);
    if (name !== null) contexts.add(name);
    return;
  }
  const isContext = GIVES_CONTEXT.test(callee) && contexts.has(nameOf(given[0]) ?? '');
  const at = isContext ? above.findIndex(isFunction) : -1;
  const name = at < 0 ? null : nameOfFunction(above[at], above.slice(0, at));
  if (name !== null && /^use[A-Z]/.test(name)) contexts.add(name);
}

/** What a component is handed of a store under other names: `connect(state, { onSelect: select })`. */
function noteConnected(callee: string, given: readonly SyntaxNode[], { stands }: AskSheet): void {
  const [, handed] = given;
  if (callee !== 'connect' || handed?.type !== 'ObjectExpression') return;
  for (const { key, value } of handed.properties as SyntaxNode[]) {
    const [name, of] = [nameOf(key), dotted(value)];
    if (name !== null && of !== null && name !== of) stands.set(name, of);
  }
}
