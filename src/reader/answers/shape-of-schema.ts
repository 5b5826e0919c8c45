import { bare, isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import type { Declarations } from './declarations.ts';
import { allOf, anyOf, DATE, FLAG, listOf, NOTHING, NUMBER, type Shape, TEXT } from './shape.ts';
import { writtenValue } from './written-value.ts';

const DEEPEST = 12;

const SIMPLE: Record<string, Shape> = {
  ...{ string: TEXT, email: TEXT, url: TEXT, uuid: TEXT, cuid: TEXT },
  ...{ number: NUMBER, int: NUMBER, bigint: NUMBER, integer: NUMBER },
  ...{ boolean: FLAG, bool: FLAG, date: DATE, isoDate: DATE },
};

/** What a schema under a name lets through that is put together of calls (`z.object({ id: z.number() })`, public form of several schema libraries). */
export function shapeOfSchema(name: string, path: string, declarations: Declarations): Shape {
  return new Schemas(declarations).named(name, path, 0);
}

class Schemas {
  constructor(private readonly declarations: Declarations) {}

  named(name: string, path: string, depth: number): Shape {
    const declared = this.declarations.find(path, name);
    return declared && depth < DEEPEST ? this.of(declared.node, declared.path, depth + 1) : NOTHING;
  }

  private of(node: unknown, path: string, depth: number): Shape {
    if (!isNode(node) || depth > DEEPEST) return NOTHING;
    const value = bare(node);
    if (value.type === 'Identifier') return this.named(value.name as string, path, depth);
    if (value.type === 'ObjectExpression') return this.object(value, path, depth);
    if (value.type !== 'CallExpression') return NOTHING;
    const callee = value.callee as SyntaxNode;
    const method = nameOf(callee.type === 'MemberExpression' ? callee.property : callee) ?? '';
    const given = value.arguments as SyntaxNode[];
    const inner = (at: unknown) => this.of(at, path, depth + 1);
    const before = callee.type === 'MemberExpression' ? (callee.object as SyntaxNode) : null;
    const made = this.made(method, given, inner, path);
    if (made) return made;
    // `z.string().min(1)`: what is called on a schema mostly narrows it.
    const on =
      before && before.type !== 'Identifier'
        ? inner(before)
        : before
          ? this.named(nameOf(before) ?? '', path, depth)
          : NOTHING;
    switch (method) {
      case 'array':
        return listOf(on);
      case 'extend':
      case 'merge':
      case 'and':
        return allOf([on, inner(given[0])]);
      case 'or':
        return anyOf([on, inner(given[0])]);
      default:
        return on;
    }
  }

  /** What a function of a library makes; null for what is called on a schema. */
  private made(
    method: string,
    given: readonly SyntaxNode[],
    inner: (at: unknown) => Shape,
    path: string,
  ): Shape | null {
    const [first, second] = given;
    const all = (list: unknown): unknown[] => {
      const named =
        isNode(list) && list.type === 'Identifier' ? this.declarations.find(path, list.name as string) : null;
      const value = named ? bare(named.node) : list;
      return isNode(value) && value.type === 'ArrayExpression' ? (value.elements as unknown[]) : [];
    };
    switch (method) {
      case 'object':
      case 'strictObject':
      case 'looseObject':
      case 'type':
        return first?.type === 'ObjectExpression' ? inner(first) : null;
      case 'array':
      case 'set':
        return first ? listOf(inner(first)) : null;
      case 'tuple':
        return listOf(anyOf(all(first).map(inner)));
      case 'record':
      case 'map':
        return { is: 'record', of: inner(second ?? first) };
      case 'enum':
      case 'picklist':
        return { is: 'one of', values: all(first).flatMap((e) => writtenValue(e) ?? []) };
      case 'literal':
        return first ? { is: 'one of', values: [writtenValue(first)] } : null;
      case 'union':
        return anyOf(all(first).map(inner));
      case 'discriminatedUnion':
      case 'variant':
        return anyOf(all(second).map(inner));
      case 'intersection':
      case 'intersect':
        return allOf((first?.type === 'ArrayExpression' ? all(first) : given).map(inner));
      case 'optional':
      case 'nullable':
      case 'nullish':
      case 'lazy':
      case 'pipe':
        if (!first) return null;
        return inner(first.type === 'ArrowFunctionExpression' ? first.body : first);
      default:
        return Object.hasOwn(SIMPLE, method) && first?.type !== 'ObjectExpression' ? SIMPLE[method] : null;
    }
  }

  private object(object: SyntaxNode, path: string, depth: number): Shape {
    const fields = (object.properties as SyntaxNode[]).flatMap((p) => {
      const name = nameOf(p.key);
      return name === null ? [] : [{ name, of: this.of(p.value, path, depth + 1) }];
    });
    return { is: 'object', fields };
  }
}
