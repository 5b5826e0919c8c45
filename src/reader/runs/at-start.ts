import { bare, isFunction, isNode, nameOf, type SyntaxNode } from '../syntax.ts';

/** Calls that go through a list with a function, at once. */
const EACH = new Set('map flatMap filter forEach reduce reduceRight some every find findIndex sort'.split(' '));

/**
 * Goes through the nodes of a program that run as its module does, be it under a condition: not what functions hold, but for those that are called by it, by name or where they
 * are made, and for what it gives to a function that it calls where it makes that (as files do that fit several kinds of modules). What other modules do isn't known.
 */
export function walkAtStart(program: SyntaxNode, visit: (node: SyntaxNode) => void): void {
  const run = new Run(visit);
  const [first, ...others] = program.body as SyntaxNode[];
  // A module that gives and takes by `require` ships as a function that is called for it.
  if (first?.type === 'FunctionDeclaration' && !first.id && others.length === 0) run.enter(first);
  else run.node(program);
}

class Run {
  /** Functions and classes by their names, as they are come by. */
  private readonly named = new Map<string, SyntaxNode>();
  private readonly entered = new Set<SyntaxNode>();

  constructor(private readonly visit: (node: SyntaxNode) => void) {}

  node(node: SyntaxNode): void {
    if (isFunction(node)) return;
    this.visit(node);
    switch (node.type) {
      case 'Program':
      case 'BlockStatement':
      case 'StaticBlock':
        this.declare(node.body as SyntaxNode[]);
        break;
      case 'CallExpression':
      case 'NewExpression':
        this.call(node);
        break;
      case 'ClassDeclaration':
      case 'ClassExpression':
        this.classBody(node);
        return;
    }
    for (const field in node) {
      const value = node[field];
      if (Array.isArray(value)) {
        for (const item of value) if (isNode(item)) this.node(item);
      } else if (isNode(value)) this.node(value);
    }
  }

  /** Functions can be called before the place where they are written. */
  private declare(body: readonly SyntaxNode[]): void {
    for (const statement of body) {
      const declared =
        (/^Export(Named|Default)Declaration$/.test(statement.type) && statement.declaration) || statement;
      if (!isNode(declared)) continue;
      if (declared.type === 'VariableDeclaration')
        for (const { id, init } of declared.declarations as SyntaxNode[]) this.name(id, init);
      else if (/^(Function|Class)Declaration$/.test(declared.type)) this.name(declared.id, declared);
    }
  }

  private name(id: unknown, value: unknown): void {
    const name = nameOf(id);
    if (name !== null && isNode(value) && (isFunction(value) || isClass(value))) this.named.set(name, value);
  }

  private call({ type, callee, arguments: given }: SyntaxNode): void {
    const { fn, isMade } = this.called(callee);
    if (fn && (type === 'NewExpression') === isClass(fn)) this.enter(fn);
    const method = isNode(callee) && callee.type === 'MemberExpression' ? (nameOf(callee.property) ?? '') : '';
    if (isMade || EACH.has(method))
      for (const argument of (given as SyntaxNode[]).map(bare)) if (isFunction(argument)) this.enter(argument);
  }

  /** The function or class that is called, where it is known; `isMade`: where it is called. */
  private called(callee: unknown): { fn?: SyntaxNode; isMade: boolean } {
    if (!isNode(callee)) return { isMade: false };
    if (callee.type === 'ParenthesizedExpression') return this.called(callee.expression);
    if (callee.type === 'Identifier') return { fn: this.named.get(callee.name as string), isMade: false };
    // `(function () { … }).call(this)`
    const isApplied = callee.type === 'MemberExpression' && /^(call|apply)$/.test(nameOf(callee.property) ?? '');
    if (isApplied) return this.called(callee.object);
    return isFunction(callee) || isClass(callee) ? { fn: callee, isMade: true } : { isMade: false };
  }

  enter(fn: SyntaxNode): void {
    if (this.entered.has(fn)) return;
    this.entered.add(fn);
    if (isClass(fn)) {
      this.members(
        fn,
        ({ kind, type, static: isStatic }) => kind === 'constructor' || (type === 'PropertyDefinition' && !isStatic),
      );
      return;
    }
    if (fn.generator === true) return;
    for (const param of fn.params as SyntaxNode[]) this.node(param);
    if (isNode(fn.body)) this.node(fn.body);
  }

  /** What of a class runs as it is made: what it inherits from, names that are worked out, and what belongs to the class itself. */
  private classBody(made: SyntaxNode): void {
    if (isNode(made.superClass)) this.node(made.superClass);
    const members = (made.body as SyntaxNode).body as SyntaxNode[];
    for (const member of members) if (member.computed && isNode(member.key)) this.node(member.key);
    for (const member of members) if (member.type === 'StaticBlock') this.node(member);
    this.members(made, ({ type, static: isStatic }) => type === 'PropertyDefinition' && isStatic === true);
  }

  private members(made: SyntaxNode, runs: (member: SyntaxNode) => boolean): void {
    for (const member of (made.body as SyntaxNode).body as SyntaxNode[]) {
      if (!runs(member) || !isNode(member.value)) continue;
      if (member.kind === 'constructor') this.enter(member.value);
      else this.node(member.value);
    }
  }
}

const isClass = ({ type }: SyntaxNode) => type === 'ClassDeclaration' || type === 'ClassExpression';
