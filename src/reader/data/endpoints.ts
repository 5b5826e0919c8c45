import type { SourceText } from '../source-text.ts';
import { bare, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { addressOf } from './address-of.ts';
import type { Address, AskSheet } from './ask-sheet.ts';

/**
 * Notes the hooks that a client makes of its described endpoints, by the public convention of Redux Toolkit's queries: of
 * `createApi({ baseQuery: fetchBaseQuery({ baseUrl }), endpoints: (b) => ({ tides: b.query({ query: (id) => `/tides/${id}` }) }) })` it is `useTidesQuery`,
 * which asks for the address behind the base. Mutations only run when somebody acts.
 */
export function noteEndpoints(program: SyntaxNode, source: SourceText, sheet: AskSheet): void {
  const { text } = source;
  if (!/\bendpoints\b/.test(text)) return;
  walk(program, (node, above) => {
    if (node.type !== 'Property' || nameOf(node.key) !== 'endpoints' || !isNode(node.value)) return;
    const client = nameOf(above.findLast((n) => n.type === 'VariableDeclarator')?.id);
    if (client === null) return;
    const base = baseIn(above.at(-1)!);
    if (base.length > 0) sheet.constants.set(`${client}.`, base);
    for (const { name, address, start } of endpointsOf(node)) {
      const { line } = source.place(start);
      const ask = { callee: `${client}.request`, args: [address], line, onAct: false };
      sheet.functions.set(hookOf(name), { parameters: [], isTop: true, asks: [ask] });
    }
  });
}

const hookOf = (endpoint: string) => `use${endpoint[0].toUpperCase()}${endpoint.slice(1)}Query`;

/** The queries that a description has, with where they lead. */
function endpointsOf({ value }: SyntaxNode): { name: string; address: Address; start: number }[] {
  const given = givenBy(value);
  if (given?.type !== 'ObjectExpression') return [];
  return (given.properties as SyntaxNode[]).flatMap((p) => {
    const [name, call] = [nameOf(p.key), isNode(p.value) ? bare(p.value) : null];
    if (!name || call?.type !== 'CallExpression' || nameOf((call.callee as SyntaxNode).property) !== 'query') return [];
    const [options] = call.arguments as SyntaxNode[];
    const query = options?.type === 'ObjectExpression' ? fieldOf(options, 'query') : undefined;
    if (!query || !isFunction(query)) return [];
    const parameters = (query.params as unknown[]).map((parameter) => nameOf(parameter) ?? '');
    return [{ name, address: addressOf(givenBy(query), parameters), start: p.start }];
  });
}

/** The base of all addresses, where the client is told one. */
function baseIn(options: SyntaxNode): Address {
  const query = options.type === 'ObjectExpression' ? fieldOf(options, 'baseQuery') : undefined;
  const [described] = query?.type === 'CallExpression' ? (query.arguments as SyntaxNode[]) : [];
  const base = described?.type === 'ObjectExpression' ? fieldOf(described, 'baseUrl') : undefined;
  return base ? addressOf(base, []) : [];
}

function fieldOf(object: SyntaxNode, key: string): SyntaxNode | undefined {
  const value = (object.properties as SyntaxNode[]).find((p) => nameOf(p.key) === key)?.value;
  return isNode(value) ? bare(value) : undefined;
}

/** What a function gives, by its only expression or its last statement. */
function givenBy(fn: unknown): SyntaxNode | null {
  if (!isNode(fn) || !isFunction(fn) || !isNode(fn.body)) return null;
  const body = bare(fn.body);
  if (body.type !== 'BlockStatement') return body;
  const last = (body.body as SyntaxNode[]).at(-1);
  return last?.type === 'ReturnStatement' && isNode(last.argument) ? bare(last.argument) : null;
}
