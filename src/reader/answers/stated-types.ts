import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/** Functions that keep something under a name, and take its type: of states, refs, signals and stores (public forms of React, Vue, Svelte, Angular and others). */
const KEEPS =
  /^(useState|useRef|useSignal|ref|shallowRef|reactive|signal|createSignal|createStore|writable|state|raw|observable)$/;
/** What a schema checks of an answer, and gives as its type (public form of several schema libraries). */
const CHECKS = /^(parse|parseAsync|decode|assert|validate)$/;

/** What the code of a script says of the type of what its calls answer; made of a tree with types. */
export class StatedTypes {
  /** Types of what is kept under names, by the name and by that of what sets it. */
  private readonly kept = new Map<string, string>();

  constructor(
    private readonly program: SyntaxNode,
    private readonly text: string,
  ) {
    walk(program, (node) => {
      if (node.type === 'VariableDeclarator') this.noteKept(node);
    });
  }

  /** The type that is stated of what a call gives once it has come, as written; null where nothing says it. `above`: what is around the call, nearest last. */
  of(call: SyntaxNode, above: readonly SyntaxNode[]): string | null {
    const type = this.given(call) ?? this.outward(call, above, new Set());
    // What stands for any type says nothing: who calls the function says which one it is.
    return type !== null && namesOfAnyType(above).some((name) => new RegExp(`\\b${name}\\b`).test(type)) ? null : type;
  }

  private noteKept({ id, init }: SyntaxNode): void {
    const annotated = typeOn(id);
    const made = isNode(init) && init.type === 'CallExpression' ? init : null;
    const by = made ? (nameOf(made.callee) ?? nameOf((made.callee as SyntaxNode).property) ?? '') : '';
    const type = annotated
      ? this.written(annotated)
      : made && KEEPS.test(by.replace(/^\$/, ''))
        ? this.given(made)
        : null;
    if (type === null || !isNode(id)) return;
    const names = id.type === 'ArrayPattern' ? (id.elements as unknown[]).map(nameOf) : [nameOf(id)];
    for (const name of names) if (name !== null) this.kept.set(name, type);
  }

  /** The first type that a call is given: `get<Order[]>('/orders')`. */
  private given({ typeArguments }: SyntaxNode): string | null {
    const [first] = (isNode(typeArguments) ? (typeArguments.params as SyntaxNode[]) : []) ?? [];
    return first ? this.written(first) : null;
  }

  private written({ start, end, type }: SyntaxNode): string | null {
    return /^TS(Any|Unknown|Void|Never|Object)Keyword$/.test(type) ? null : this.text.slice(start, end);
  }

  /** Goes outward from a value as long as it is what the answer is made of. */
  private outward(from: SyntaxNode, above: readonly SyntaxNode[], seen: Set<string>): string | null {
    let node = from;
    let isReturned = false;
    for (let at = above.length - 1; at >= 0; at--) {
      const around = above[at];
      switch (around.type) {
        case 'TSAsExpression':
        case 'TSSatisfiesExpression':
        case 'TSTypeAssertion': {
          const type = this.written(around.typeAnnotation as SyntaxNode);
          if (type !== null && type !== 'const') return type;
          break;
        }
        case 'MemberExpression':
          if (around.object !== node) return null;
          break;
        case 'CallExpression': {
          const found = around.callee === node ? this.chained(around) : this.taken(around);
          if (found !== null) return found;
          if (around.callee !== node && !isFunction(node) && node.type !== 'ObjectExpression') return null;
          break;
        }
        case 'VariableDeclarator':
          return around.init === node && !isFunction(node) ? this.ofVariable(around.id, seen) : null;
        case 'AssignmentExpression':
          return around.right === node ? (this.kept.get(rootOf(around.left) ?? '') ?? null) : null;
        case 'ReturnStatement':
          isReturned = true;
          break;
        case 'ArrowFunctionExpression':
        case 'FunctionExpression':
        case 'FunctionDeclaration': {
          if (!isReturned && around.body !== node) return null;
          const returned = around.returnType
            ? this.written((around.returnType as SyntaxNode).typeAnnotation as SyntaxNode)
            : null;
          if (returned !== null) return returned;
          if (around.type === 'FunctionDeclaration') return null;
          isReturned = false;
          break;
        }
        case 'Property':
          if (!isFunction(node)) return null;
          break;
        case 'AwaitExpression':
        case 'ParenthesizedExpression':
        case 'TSNonNullExpression':
        case 'ChainExpression':
        case 'ObjectExpression':
          break;
        case 'BlockStatement':
        case 'TryStatement':
        case 'IfStatement':
          if (!isReturned) return null;
          break;
        default:
          return null;
      }
      node = around;
    }
    return null;
  }

  /** What a call that follows says: `.json<Order[]>()`, `.then((all: Order[]) => …)`, `.then(setAll)`. */
  private chained(call: SyntaxNode): string | null {
    const given = this.given(call);
    if (given !== null || !/^(then|subscribe)$/.test(nameOf((call.callee as SyntaxNode).property) ?? '')) return given;
    const [then] = call.arguments as (SyntaxNode | undefined)[];
    if (!then) return null;
    if (then.type === 'Identifier') return this.kept.get(then.name as string) ?? null;
    if (!isFunction(then)) return null;
    const [param] = then.params as (SyntaxNode | undefined)[];
    const annotated = param && typeOn(param);
    const type = annotated ? this.written(annotated) : null;
    return type !== null && !/^Response$/.test(type) ? type : this.inside(then, nameOf(param));
  }

  /** What a function that is handed an answer says of it: as what it takes its body, or what it hands it on to. */
  private inside(fn: SyntaxNode, name: string | null): string | null {
    let found: string | null = null;
    const isOf = (value: unknown): boolean => {
      if (!isNode(value)) return false;
      if (value.type === 'AwaitExpression') return isOf(value.argument);
      if (value.type === 'CallExpression') return isOf((value.callee as SyntaxNode).object);
      return value.type === 'MemberExpression' ? isOf(value.object) : name !== null && nameOf(value) === name;
    };
    walk(fn.body as SyntaxNode, (node) => {
      if (found !== null) return;
      if (/^TS(As|Satisfies)Expression$/.test(node.type) && isOf(node.expression))
        found = this.written(node.typeAnnotation as SyntaxNode);
      else if (node.type === 'CallExpression' && (node.arguments as unknown[]).some(isOf)) found = this.taken(node);
      else if (node.type === 'AssignmentExpression' && isOf(node.right))
        found = this.kept.get(rootOf(node.left) ?? '') ?? null;
    });
    return found;
  }

  /** What a call says that takes an answer: what sets a state, checks it by a schema, or is given a type. */
  private taken(call: SyntaxNode): string | null {
    const callee = call.callee as SyntaxNode;
    const given = this.given(call);
    if (given !== null) return given;
    if (callee.type === 'Identifier') return this.kept.get(callee.name as string) ?? null;
    if (callee.type !== 'MemberExpression') return null;
    const [of, method] = [rootOf(callee.object), nameOf(callee.property) ?? ''];
    if (of === null) return null;
    if (CHECKS.test(method)) return `z.infer<typeof ${of}>`;
    return method === 'set' ? (this.kept.get(of) ?? null) : null;
  }

  private ofVariable(id: unknown, seen: Set<string>): string | null {
    const annotated = typeOn(id);
    if (annotated) return this.written(annotated);
    const name = isNode(id) && id.type === 'Identifier' ? (id.name as string) : null;
    if (name === null || seen.has(name)) return null;
    seen.add(name);
    let found: string | null = null;
    walk(this.program, (use, above) => {
      if (found === null && use !== id && use.type === 'Identifier' && use.name === name)
        found = this.outward(use, above, seen);
    });
    return found;
  }
}

/** Names that stand for any type in the functions and classes around a place. */
function namesOfAnyType(above: readonly SyntaxNode[]): string[] {
  return above.flatMap(({ typeParameters }) => {
    const params =
      isNode(typeParameters) && typeParameters.type === 'TSTypeParameterDeclaration' ? typeParameters.params : [];
    return (params as SyntaxNode[]).flatMap((p) => nameOf(p.name) ?? []).filter((name) => /^\w+$/.test(name));
  });
}

/** The type that is written behind a name or a pattern. */
function typeOn(id: unknown): SyntaxNode | null {
  const on = isNode(id) ? id.typeAnnotation : null;
  return isNode(on) && isNode(on.typeAnnotation) ? on.typeAnnotation : null;
}

/** The name that something begins with: of `rows.value` that is `rows`. */
function rootOf(node: unknown): string | null {
  let at = node;
  while (isNode(at) && at.type === 'MemberExpression') at = at.object;
  if (isNode(at) && at.type === 'ThisExpression' && isNode(node)) return nameOf(node.property);
  return nameOf(at);
}
