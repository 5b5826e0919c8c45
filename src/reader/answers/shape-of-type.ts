import { parse } from '../script/parse.ts';
import { bare, constantText, isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import type { Declarations } from './declarations.ts';
import { allOf, anyOf, DATE, FLAG, listOf, NOTHING, NUMBER, type Shape, TEXT } from './shape.ts';
import { shapeOfSchema } from './shape-of-schema.ts';
import { writtenValue } from './written-value.ts';

/** Types within types are followed so far; what lies deeper is nothing. */
const DEEPEST = 12;

/** What holds a value that comes, or is kept, and isn't there in an answer itself (of the language, and of widely used packages by their names). */
const HOLDS_VALUE =
  /^(Promise|PromiseLike|Awaited|Readonly|Required|Partial|NonNullable|Ref|ShallowRef|ComputedRef|UnwrapRef|Signal|WritableSignal|Observable|AxiosResponse|HttpResponse|UseQueryResult|QueryObserverResult|SWRResponse|DeepReadonly|Loadable)$/;
const LISTS = /^(Array|ReadonlyArray|Set|Iterable|NonEmptyArray)$/;

/** Type parameters that are filled in, with their shapes. */
type Given = ReadonlyMap<string, () => Shape>;

/** What values of a type look like, that is written in a module; null where nothing can be told of it. */
export function shapeOfType(written: string, path: string, declarations: Declarations): Shape | null {
  const parsed = parse('type.ts', `type Written = ${written};`, { astType: 'ts', lang: 'ts' });
  if (parsed.errors.some((e) => e.severity === 'Error')) return null;
  const [statement] = parsed.program().body as SyntaxNode[];
  const shape = new Shapes(declarations).of(statement.typeAnnotation, { path, given: new Map(), depth: 0 });
  return shape.is === 'nothing' ? null : shape;
}

interface Where {
  path: string;
  given: Given;
  depth: number;
}

class Shapes {
  constructor(private readonly declarations: Declarations) {}

  of(type: unknown, at: Where): Shape {
    if (!isNode(type) || at.depth > DEEPEST) return NOTHING;
    const where = { ...at, depth: at.depth + 1 };
    switch (type.type) {
      case 'TSStringKeyword':
      case 'TSTemplateLiteralType':
        return TEXT;
      case 'TSNumberKeyword':
      case 'TSBigIntKeyword':
        return NUMBER;
      case 'TSBooleanKeyword':
        return FLAG;
      case 'TSLiteralType':
        return literal(type.literal);
      case 'TSArrayType':
        return listOf(this.of(type.elementType, where));
      case 'TSTupleType':
        return listOf(anyOf((type.elementTypes as SyntaxNode[]).map((t) => this.of(t, where))));
      case 'TSNamedTupleMember':
        return this.of(type.elementType, where);
      case 'TSRestType':
      case 'TSOptionalType':
      case 'TSParenthesizedType':
        return this.of(type.typeAnnotation, where);
      case 'TSTypeOperator':
        return type.operator === 'keyof'
          ? this.keysOf(type.typeAnnotation, where)
          : this.of(type.typeAnnotation, where);
      case 'TSUnionType':
        return anyOf((type.types as SyntaxNode[]).map((t) => this.of(t, where)));
      case 'TSIntersectionType':
        return allOf((type.types as SyntaxNode[]).map((t) => this.of(t, where)));
      case 'TSTypeLiteral':
        return this.members(type.members as SyntaxNode[], where);
      case 'TSMappedType':
        return this.mapped(this.of(type.constraint, where), this.of(type.typeAnnotation, where));
      case 'TSConditionalType':
        return this.of(type.trueType, where);
      case 'TSIndexedAccessType':
        return this.indexed(type, where);
      case 'TSTypeReference':
        return this.named(type, where);
      default:
        return NOTHING;
    }
  }

  private members(members: readonly SyntaxNode[], where: Where): Shape {
    const fields = members.flatMap((m) => {
      const name = nameOf(m.key);
      const isValue = /^(TSPropertySignature|PropertyDefinition|TSAbstractPropertyDefinition)$/.test(m.type);
      if (!isValue || name === null || m.static) return [];
      return [{ name, of: this.of((m.typeAnnotation as SyntaxNode | null)?.typeAnnotation, where) }];
    });
    const open = members.find((m) => m.type === 'TSIndexSignature');
    if (fields.length === 0 && open)
      return { is: 'record', of: this.of((open.typeAnnotation as SyntaxNode).typeAnnotation, where) };
    return { is: 'object', fields };
  }

  private named({ typeName, typeArguments }: SyntaxNode, where: Where): Shape {
    const given = (isNode(typeArguments) ? (typeArguments.params as SyntaxNode[]) : []) ?? [];
    const name = lastOf(typeName);
    const first = () => this.of(given[0], where);
    const filled = where.given.get(name);
    if (filled) return filled();
    const declared =
      isNode(typeName) && typeName.type === 'Identifier' ? this.declarations.find(where.path, name) : null;
    if (declared) return this.declared(declared.node, given, where, declared.path);
    if (/^(infer|Infer|InferOutput|output|TypeOf|Static)$/.test(name) && given[0]?.type === 'TSTypeQuery')
      return shapeOfSchema(nameOf(given[0].exprName) ?? '', where.path, this.declarations);
    if (HOLDS_VALUE.test(name)) return first();
    if (LISTS.test(name)) return listOf(first());
    switch (name) {
      case 'Date':
        return DATE;
      case 'Record':
      case 'Map':
        return this.mapped(first(), this.of(given[1], where));
      case 'Pick':
      case 'Omit': {
        const chosen = namesOf(this.of(given[1], where));
        const whole = first();
        if (whole.is !== 'object') return whole;
        return { is: 'object', fields: whole.fields.filter((f) => chosen.has(f.name) === (name === 'Pick')) };
      }
      case 'Extract':
      case 'Exclude':
        return first();
      default:
        // What a package's type holds nobody knows here; mostly it is what it is given.
        return given.length > 0 ? first() : NOTHING;
    }
  }

  private declared(node: SyntaxNode, given: readonly SyntaxNode[], from: Where, path: string): Shape {
    const params = (node.typeParameters as SyntaxNode | null)?.params as SyntaxNode[] | undefined;
    const filled = new Map<string, () => Shape>();
    const where: Where = { path, given: filled, depth: from.depth };
    for (const [i, param] of (params ?? []).entries()) {
      const own = given[i];
      filled.set(nameOf(param.name) ?? '', () =>
        own ? this.of(own, from) : this.of(param.default ?? param.constraint, where),
      );
    }
    switch (node.type) {
      case 'TSTypeAliasDeclaration':
        return this.of(node.typeAnnotation, where);
      case 'TSInterfaceDeclaration': {
        const above = (node.extends as SyntaxNode[] | undefined) ?? [];
        const inherited = above.map((h) =>
          this.named({ ...h, type: 'TSTypeReference', typeName: h.expression }, { ...where, depth: where.depth + 1 }),
        );
        return allOf([
          ...inherited,
          this.members((node.body as SyntaxNode).body as SyntaxNode[], { ...where, depth: where.depth + 1 }),
        ]);
      }
      case 'ClassDeclaration':
        return this.members((node.body as SyntaxNode).body as SyntaxNode[], { ...where, depth: where.depth + 1 });
      case 'TSEnumDeclaration': {
        const members = (node.body as SyntaxNode).members as SyntaxNode[];
        return { is: 'one of', values: members.map((m, i) => writtenValue(m.initializer) ?? i) };
      }
      default:
        return NOTHING;
    }
  }

  /** `Order['lines']`, `(typeof STATES)[number]`. */
  private indexed({ objectType, indexType }: SyntaxNode, where: Where): Shape {
    const object =
      isNode(objectType) && objectType.type === 'TSParenthesizedType' ? objectType.typeAnnotation : objectType;
    if (isNode(object) && object.type === 'TSTypeQuery') {
      const declared = this.declarations.find(where.path, nameOf(object.exprName) ?? '');
      const value = declared && bare(declared.node);
      if (value?.type !== 'ArrayExpression' && value?.type !== 'ObjectExpression') return NOTHING;
      const items =
        value.type === 'ArrayExpression' ? value.elements : (value.properties as SyntaxNode[]).map((p) => p.value);
      const values = (items as unknown[]).flatMap((e) => writtenValue(e) ?? []);
      return values.length > 0 ? { is: 'one of', values } : NOTHING;
    }
    const shape = this.of(object, where);
    if (shape.is === 'list') return shape.of;
    const name = isNode(indexType) && indexType.type === 'TSLiteralType' ? constantText(indexType.literal) : null;
    if (shape.is === 'object') {
      const found = shape.fields.find((f) => f.name === name);
      return found?.of ?? anyOf(shape.fields.map((f) => f.of));
    }
    return shape.is === 'record' ? shape.of : NOTHING;
  }

  private keysOf(type: unknown, where: Where): Shape {
    const shape = this.of(type, where);
    return shape.is === 'object' ? { is: 'one of', values: shape.fields.map((f) => f.name) } : TEXT;
  }

  private mapped(keys: Shape, of: Shape): Shape {
    const names = [...namesOf(keys)];
    return names.length > 0 ? { is: 'object', fields: names.map((name) => ({ name, of })) } : { is: 'record', of };
  }
}

function lastOf(name: unknown): string {
  return (isNode(name) && name.type === 'TSQualifiedName' ? nameOf(name.right) : nameOf(name)) ?? '';
}

const namesOf = (shape: Shape) => new Set(shape.is === 'one of' ? shape.values.map(String) : []);

function literal(node: unknown): Shape {
  const value = writtenValue(node);
  if (value !== null) return { is: 'one of', values: [value] };
  return isNode(node) && node.type === 'TemplateLiteral' ? TEXT : NOTHING;
}
