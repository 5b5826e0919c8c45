import { parse } from '../script/parse.ts';
import { bare, type SyntaxNode, walk } from '../syntax.ts';

const MOST = 20_000;

/** Parses an expression of a template, with its places as in the file; null for one that can't be parsed. */
export function expressionNode(text: string, offset: number): SyntaxNode | null {
  const body = parsed(`(${text}\n)`, offset - 1);
  const [only] = body ?? [];
  return only?.type === 'ExpressionStatement' && body!.length === 1 ? bare(only.expression as SyntaxNode) : null;
}

/** Parses what a handler does: an expression, or statements. */
export function handlerNode(text: string, offset: number): SyntaxNode | null {
  if (text.trim() === '') return null;
  const expression = expressionNode(text, offset);
  if (expression) return expression;
  const body = parsed(`{${text}\n}`, offset - 1);
  return body?.[0] ?? null;
}

function parsed(text: string, offset: number): SyntaxNode[] | null {
  if (text.length > MOST) return null;
  const { program, errors } = parse('template.ts', text, { lang: 'ts' });
  if (errors.some((e) => e.severity === 'Error')) return null;
  const body = program().body as SyntaxNode[];
  for (const statement of body)
    walk(statement, (node) => {
      node.start += offset;
      node.end += offset;
    });
  return body;
}
