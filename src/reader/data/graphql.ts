import { constantText, isNode, nameOf, type SyntaxNode } from '../syntax.ts';

/*
 * A query of GraphQL goes to the same address as all others, with its text in the request. Which one it is, its name says, which is sent along as
 * `operationName` (GraphQL over HTTP). Addresses of such calls carry it as a fragment, which is no part of what is asked for: `/graphql#Tides`.
 */

const WRITES = /^(gql|graphql)$/;

/** How the query that an expression writes out begins: `query Tides`; null of anything else, and of what changes data. */
export function queryIn(node: SyntaxNode): string | null {
  const text = documentText(node);
  const [, name] = (text && /(?:^|[\s}])query\s+(\w+)/.exec(text.replace(/#[^\n]*/g, ''))) || [];
  return name === undefined ? null : `query ${name}`;
}

/** The name of the query that begins so; null of any other text. */
export function queryName(beginning: string): string | null {
  return /^query (\w+)$/.exec(beginning)?.[1] ?? null;
}

/** The text of a document: gql`query Tides { … }`, graphql('query Tides { … }'). */
function documentText(node: SyntaxNode): string | null {
  if (node.type === 'TaggedTemplateExpression' && WRITES.test(nameOf(node.tag) ?? ''))
    return ((node.quasi as SyntaxNode).quasis as { value: { cooked: string | null } }[])
      .map((q) => q.value.cooked ?? '')
      .join(' ');
  if (node.type !== 'CallExpression' || !WRITES.test(nameOf(node.callee) ?? '')) return null;
  const [first] = node.arguments as unknown[];
  return isNode(first) ? constantText(first) : null;
}

/** What makes a client or its link, with where it is told the address of the server. */
const CLIENT =
  /^(HttpLink|createHttpLink|BatchHttpLink|UploadHttpLink|createUploadLink|ApolloClient|GraphQLClient|createClient|Client)$/;
const OF_GRAPHQL = /apollo|urql|graphql|relay/;

/** What a client of a package is told as the address of the server; undefined where a call makes none. */
export function endpointIn(
  node: SyntaxNode,
  callee: string,
  imports: ReadonlyMap<string, { specifier: string; name: string }>,
): SyntaxNode | undefined {
  const from = imports.get(callee.split('.')[0]);
  if (!from || !OF_GRAPHQL.test(from.specifier) || !CLIENT.test(callee.split('.').at(-1)!)) return undefined;
  const [first] = node.arguments as SyntaxNode[];
  if (first?.type !== 'ObjectExpression') return first;
  const told = (first.properties as SyntaxNode[]).find((p) => /^(uri|url)$/.test(nameOf(p.key) ?? ''))?.value;
  return isNode(told) ? told : undefined;
}
