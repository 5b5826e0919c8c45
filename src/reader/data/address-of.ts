import { bare, constantText, isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import type { Address, AddressPiece } from './ask-sheet.ts';
import { queryIn } from './graphql.ts';

/** What an expression says of an address; `parameters`: of the function around it. Empty where it is no text. */
export function addressOf(value: unknown, parameters: readonly string[]): Address {
  if (!isNode(value)) return [];
  const node = bare(value);
  const text = constantText(node) ?? queryIn(node);
  if (text !== null) return [{ text }];
  const inner = (one: unknown) => addressOf(one, parameters);
  switch (node.type) {
    case 'Identifier':
      return [named(node.name as string, parameters)];
    case 'TemplateLiteral': {
      const texts = (node.quasis as { value: { cooked: string } }[]).map((q) => q.value.cooked);
      const between = (node.expressions as unknown[]).map((e) => gapped(e, inner(e)));
      return texts.flatMap((t, at) => [...(t === '' ? [] : [{ text: t }]), ...(between[at] ?? [])]);
    }
    case 'BinaryExpression': {
      const { left, right } = node;
      return node.operator === '+' ? [...gapped(left, inner(left)), ...gapped(right, inner(right))] : [];
    }
    case 'MemberExpression': {
      const name = memberName(node);
      return name === null ? [] : [{ constant: name }];
    }
    case 'ConditionalExpression':
      return inner(node.consequent);
    case 'LogicalExpression':
      if (node.operator === '&&') return inner(node.right);
      return otherwise(inner(node.left), inner(node.right));
    case 'ObjectExpression': {
      const at = (key: RegExp) => (node.properties as SyntaxNode[]).find((p) => key.test(nameOf(p.key) ?? ''));
      const named = at(/^(url|path|href)$/) ?? at(/^(query|document)$/);
      return named ? inner(named.value) : [];
    }
    case 'ArrayExpression':
      return inner((node.elements as unknown[])[0]);
    case 'NewExpression':
    case 'CallExpression': {
      const called = nameOf(node.callee) ?? '';
      const passes = /^(URL|Request|String|encodeURI|encodeURIComponent|unref|toValue)$/.test(called);
      return passes ? inner((node.arguments as unknown[])[0]) : [];
    }
    case 'ArrowFunctionExpression':
      // An address that is asked for when it is needed: `useFetch(() => `/tides/${id}`)`.
      return isNode(node.body) && node.body.type !== 'BlockStatement' ? inner(node.body) : [];
    default:
      return [];
  }
}

/** An address, with another one in its place where it says nothing: `import.meta.env.VITE_API ?? '/api'`. */
function otherwise(address: Address, other: Address): Address {
  if (!address.some((piece) => !('text' in piece) || piece.text !== '')) return other;
  const [piece, ...more] = address;
  const isMore = other.some((o) => !('text' in o) || o.text !== '');
  return more.length === 0 && 'constant' in piece && isMore ? [{ ...piece, or: other }] : address;
}

function named(name: string, parameters: readonly string[]): AddressPiece {
  const at = parameters.indexOf(name);
  return at >= 0 ? { parameter: at } : { constant: name };
}

/** A piece of a longer text that says nothing still stands for something there. */
function gapped(value: unknown, address: Address): Address {
  if (address.length > 0) return address;
  const node = isNode(value) ? bare(value) : null;
  const last = node?.type === 'CallExpression' ? (node.arguments as SyntaxNode[])[0] : node;
  return [
    { gap: (isNode(last) && (nameOf(last.type === 'MemberExpression' ? last.property : last) ?? '')) || 'value' },
  ];
}

function memberName(node: SyntaxNode): string | null {
  const [object, property] = [node.object as SyntaxNode, nameOf(node.property)];
  if (node.computed || property === null) return null;
  const before = object.type === 'MemberExpression' ? memberName(object) : nameOf(object);
  return before === null ? property : `${before}.${property}`;
}
