import MagicString from 'magic-string';
import { parse } from '../../reader/script/parse.ts';
import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../../reader/syntax.ts';

/** Where a name leads that a module takes of a specifier. */
export interface Taken {
  module: number;
  /** `*` for all of the module. */
  name: string;
}

/** What of the graph around it a module’s text asks for. */
export interface Around {
  /** Where a name of a specifier leads; null where nothing is known of it. */
  taken(specifier: string, name: string): Taken | null;
  /** All names that an import of everything may take, where it leads to several modules; null where it leads to one. */
  members(specifier: string): Record<string, Taken> | null;
  /** What `export * from` a specifier passes on: a whole module, or names. */
  passed(specifier: string): { whole: number[]; names: Record<string, Taken> };
  /** Whether what a specifier gives makes a worker of the script. */
  makesWorker(specifier: string): boolean;
}

export interface WrittenModule {
  /** A function for the registry (see `runtime.ts`). */
  text: string;
  /** Specifiers of its static imports, in their order. */
  specifiers: string[];
  /** It waits at its top level. */
  waits: boolean;
}

/**
 * An ES module as a function that the registry runs in two steps: up to its `yield`, what it declares is made known and its
 * imports are tied to variables that the registry fills, and fills again when they change; after it, the module runs. Each
 * exported value is handed out as soon as it is there, and again whenever code gives it another one.
 */
export function writeEsModule(code: string, around: Around): WrittenModule {
  return new EsModule(code, around).write();
}

type Statement = SyntaxNode & { declaration: SyntaxNode | null; specifiers: SyntaxNode[]; source: SyntaxNode | null };

class EsModule {
  private readonly text: MagicString;
  private readonly program: SyntaxNode;
  /** The registry’s name inside of the module. */
  private readonly own: string;
  private readonly specifiers: string[] = [];
  private readonly locals: string[] = [];
  /** Imports that are tied to variables. */
  private readonly ties: (Taken & { local: string })[] = [];
  /** What ties other imports, passes names on, and says what is exported. */
  private readonly head: string[] = [];
  /** local name → the names under which it is exported. */
  private readonly exported = new Map<string, string[]>();
  /** Imported names: local → where it leads. */
  private readonly imported = new Map<string, { specifier: string; name: string }>();

  constructor(
    private readonly code: string,
    private readonly around: Around,
  ) {
    this.text = new MagicString(code);
    const parsed = parse('module.js', code, { sourceType: 'module' });
    const broken = parsed.errors.find((e) => e.severity === 'Error');
    if (broken) throw new SyntaxError(broken.message);
    this.program = parsed.program();
    let own = 'own';
    while (code.includes(own)) own += '_';
    this.own = own;
  }

  write(): WrittenModule {
    const body = this.program.body as Statement[];
    // Modules run in the order in which they are named first, by imports and exports alike.
    for (const { source } of body) if (source) this.ask(source);
    for (const statement of body) if (statement.type === 'ImportDeclaration') this.takeImport(statement);
    for (const statement of body) this.takeExport(statement);
    const has = [...this.exported.values()].flat();
    if (has.length > 0) this.head.push(`${this.own}.has(${has.map(quoted).join(',')})`);
    const hoisted = body.flatMap((s) => this.hoistedBy(s));
    if (hoisted.length > 0) this.head.push(this.handingOut(hoisted));
    for (const statement of body) this.handOutAfter(statement);
    this.followChanges();
    this.followCalls();
    const waits = waitsAtTop(this.program);
    const lets = this.locals.length > 0 ? `let ${this.locals.join(',')};` : '';
    const head = [...this.tied(), ...this.head].map((h) => `${h};`).join('');
    const rest = this.text.toString();
    const text = `${waits ? 'async ' : ''}function*(${this.own}){"use strict";${lets}${head}yield;\n${rest}\n}`;
    return { text, specifiers: this.specifiers, waits };
  }

  private ask(source: unknown): string {
    const specifier = constantText(source)!;
    if (!this.specifiers.includes(specifier)) this.specifiers.push(specifier);
    return specifier;
  }

  private takeImport(statement: Statement): void {
    const specifier = this.ask(statement.source);
    for (const item of statement.specifiers) {
      const local = nameOf(item.local)!;
      const name =
        item.type === 'ImportDefaultSpecifier'
          ? 'default'
          : item.type === 'ImportSpecifier'
            ? nameOf(item.imported)!
            : '*';
      this.locals.push(local);
      this.imported.set(local, { specifier, name });
      this.tie(specifier, name, local);
    }
    this.text.remove(statement.start, statement.end);
  }

  private tie(specifier: string, name: string, local: string): void {
    const { own, around } = this;
    if (around.makesWorker(specifier)) {
      this.head.push(`${local}=${own}.worker(${quoted(specifier)})`);
      return;
    }
    const members = name === '*' ? around.members(specifier) : null;
    // No name of the module’s own may stand in the way.
    const set = `${own}V=>{${local}=${own}V}`;
    if (members) {
      this.head.push(`${own}.all(${tableOf(members)},${set})`);
      return;
    }
    const taken = around.taken(specifier, name);
    if (taken) this.ties.push({ ...taken, local });
  }

  /** All variables are set by one function: each function that is called takes its time to be compiled, and an app has thousands of imports. */
  private tied(): string[] {
    const { own, ties } = this;
    if (ties.length === 0) return [];
    const from = ties.map(({ module, name }) => `${module},${quoted(name)}`).join(',');
    const cases = ties.map(({ local }, at) => `case ${at}:${local}=${own}V;break;`).join('');
    const sets = ties.length === 1 ? `${ties[0].local}=${own}V` : `switch(${own}I){${cases}}`;
    return [`${own}.on([${from}],(${own}I,${own}V)=>{${sets}})`];
  }

  private takeExport(statement: Statement): void {
    if (statement.type === 'ExportAllDeclaration') this.passAll(statement);
    else if (statement.type === 'ExportNamedDeclaration') this.takeNamed(statement);
    else if (statement.type === 'ExportDefaultDeclaration') this.takeDefault(statement);
  }

  private passAll(statement: Statement): void {
    const specifier = this.ask(statement.source);
    const as = nameOf(statement.exported);
    if (as !== null) this.pass(as, specifier, '*');
    else {
      const { whole, names } = this.around.passed(specifier);
      for (const module of whole) this.head.push(`${this.own}.star(${module})`);
      for (const [name, taken] of Object.entries(names)) this.passTo(name, taken);
    }
    this.text.remove(statement.start, statement.end);
  }

  private pass(as: string, specifier: string, name: string): void {
    const taken = this.around.taken(specifier, name);
    if (taken) this.passTo(as, taken);
  }

  private passTo(as: string, { module, name }: Taken): void {
    this.head.push(`${this.own}.pass(${quoted(as)},${module},${quoted(name)})`);
  }

  private takeNamed(statement: Statement): void {
    const { declaration, source, specifiers } = statement;
    if (declaration) {
      for (const name of declaredBy(declaration)) this.export(name, name);
      this.text.remove(statement.start, declaration.start);
      return;
    }
    const specifier = source ? this.ask(source) : null;
    for (const item of specifiers) {
      const [local, as] = [nameOf(item.local)!, nameOf(item.exported)!];
      if (specifier !== null) this.pass(as, specifier, local);
      else this.export(local, as);
    }
    this.text.remove(statement.start, statement.end);
  }

  /** Notes a name under which a local one is exported; an imported one is only passed on. */
  private export(local: string, as: string): void {
    const from = this.imported.get(local);
    if (!from) this.exported.set(local, [...(this.exported.get(local) ?? []), as]);
    else if (from.name !== '*' || !this.around.members(from.specifier)) this.pass(as, from.specifier, from.name);
    else this.exported.set(local, [...(this.exported.get(local) ?? []), as]);
  }

  private takeDefault(statement: Statement): void {
    const { own } = this;
    const value = statement.declaration!;
    const name = nameOf(value.id);
    const isDeclared = value.type === 'FunctionDeclaration' || value.type === 'ClassDeclaration';
    if (isDeclared && name !== null) {
      this.export(name, 'default');
      this.text.remove(statement.start, value.start);
    } else if (value.type === 'FunctionDeclaration') {
      // It has the name that the language gives it, and is there before anything runs.
      const made = `${own}Default`;
      this.export(made, 'default');
      this.text.remove(statement.start, value.start);
      const params = this.code.indexOf('(', value.start);
      this.text.appendLeft(params, ` ${made}`);
      this.head.push(`Object.defineProperty(${made},"name",{value:"default"})`);
    } else {
      this.exported.set('', ['default']);
      this.text.overwrite(statement.start, value.start, `${own}.out("default",{default:`);
      this.text.appendLeft(value.end, '}.default);');
      if (statement.end > value.end) this.text.remove(value.end, statement.end);
    }
  }

  /** Exported functions that a statement declares: they are there before anything runs. */
  private hoistedBy(statement: Statement): string[] {
    const declared = statement.declaration ?? statement;
    if (declared.type !== 'FunctionDeclaration') return [];
    const name = nameOf(declared.id) ?? `${this.own}Default`;
    return this.exported.has(name) ? [name] : [];
  }

  private handingOut(locals: readonly string[]): string {
    const values = locals.flatMap((l) => this.exported.get(l)!.map((as) => `${quoted(as)},${l}`));
    return `${this.own}.out(${values.join(',')})`;
  }

  /** Hands exported values out once the statement that declares them has run, each before the next is made. */
  private handOutAfter(statement: Statement): void {
    const declared = statement.declaration ?? statement;
    if (declared.type === 'ClassDeclaration') {
      const name = nameOf(declared.id);
      if (name !== null && this.exported.has(name)) this.text.appendLeft(statement.end, `;${this.handingOut([name])};`);
      return;
    }
    if (declared.type !== 'VariableDeclaration') {
      const within = varsWithin(statement).filter((name) => this.exported.has(name));
      if (within.length > 0) this.text.appendLeft(statement.end, `;${this.handingOut(within)};`);
      return;
    }
    const declarators = declared.declarations as SyntaxNode[];
    declarators.forEach((declarator, i) => {
      const names = patternNames(declarator.id).filter((name) => this.exported.has(name));
      if (names.length === 0) return;
      const next = declarators[i + 1];
      if (!next) this.text.appendLeft(declared.end, `;${this.handingOut(names)};`);
      else this.text.overwrite(declarator.end, next.start, `;${this.handingOut(names)};${declared.kind as string} `);
    });
  }

  /** Hands exported values out again after each place that may give them another one. */
  private followChanges(): void {
    const changed = new Set<string>();
    const places: { node: SyntaxNode; names: string[] }[] = [];
    walk(this.program, (node) => {
      const target =
        node.type === 'AssignmentExpression' ? node.left : node.type === 'UpdateExpression' ? node.argument : null;
      const ofLoop =
        /^For(In|Of)Statement$/.test(node.type) && (node.left as SyntaxNode).type !== 'VariableDeclaration';
      const names = patternNames(target ?? (ofLoop ? node.left : null)).filter((n) => this.exported.has(n));
      if (names.length === 0) return;
      for (const n of names) changed.add(n);
      places.push({ node, names });
    });
    const again = `${this.own}Again`;
    const order = [...changed];
    order.forEach((name, n) => {
      // Something nearer may have the same name, and be changed before this one is there.
      this.head.push(`const ${again}${n}=${this.own}V=>{try{${this.handingOut([name])}}catch{}return ${this.own}V}`);
    });
    for (const { node, names } of places) {
      const calls = names.map((name) => `${again}${order.indexOf(name)}(`);
      if (/^For/.test(node.type)) {
        const body = node.body as SyntaxNode;
        this.text.appendLeft(body.start, `{${calls.map((call) => `${call});`).join('')}`);
        this.text.appendRight(body.end, '}');
      } else {
        this.text.prependRight(node.start, calls.join(''));
        this.text.appendLeft(node.end, ')'.repeat(calls.length));
      }
    }
  }

  /** Deferred imports, addresses of files, and what a module knows of itself go through the registry. */
  private followCalls(): void {
    const { own } = this;
    walk(this.program, (node, above) => {
      if (node.type === 'ImportExpression') {
        const { source } = node as SyntaxNode & { source: SyntaxNode };
        this.text.overwrite(node.start, source.start, `${own}.load(`);
        this.text.overwrite(source.end, node.end, ')');
      } else if (node.type === 'MetaProperty' && nameOf(node.meta) === 'import') {
        const [address] = above.slice(-2);
        const call = address?.type === 'NewExpression' && nameOf(address.callee) === 'URL' ? address : null;
        const first = call && (call.arguments as SyntaxNode[])[0];
        if (first && constantText(first) !== null)
          this.text.overwrite(first.start, first.end, `${own}.url(${quoted(constantText(first)!)})`);
        this.text.overwrite(node.start, node.end, `${own}.meta`);
      }
    });
  }
}

const quoted = (text: string) => JSON.stringify(text);

function tableOf(members: Record<string, Taken>): string {
  return `{${Object.entries(members)
    .map(([as, { module, name }]) => `${quoted(as)}:[${module},${quoted(name)}]`)
    .join(',')}}`;
}

/** Names that a declaration gives. */
function declaredBy(declaration: SyntaxNode): string[] {
  if (declaration.type === 'VariableDeclaration')
    return (declaration.declarations as SyntaxNode[]).flatMap((d) => patternNames(d.id));
  const name = nameOf(declaration.id);
  return name === null ? [] : [name];
}

/** Names that a pattern binds or assigns; members of objects are none. */
function patternNames(pattern: unknown): string[] {
  if (!isNode(pattern)) return [];
  switch (pattern.type) {
    case 'Identifier':
      return [pattern.name as string];
    case 'ObjectPattern':
      return (pattern.properties as SyntaxNode[]).flatMap((p) =>
        patternNames(p.type === 'RestElement' ? p.argument : p.value),
      );
    case 'ArrayPattern':
      return (pattern.elements as unknown[]).flatMap(patternNames);
    case 'AssignmentPattern':
      return patternNames(pattern.left);
    case 'RestElement':
      return patternNames(pattern.argument);
    case 'ParenthesizedExpression':
      return patternNames(pattern.expression);
    default:
      return [];
  }
}

/** Names of `var` inside of a statement, outside of functions: they belong to the module. */
function varsWithin(statement: SyntaxNode): string[] {
  const names: string[] = [];
  walk(statement, (node, above) => {
    if (node.type === 'VariableDeclaration' && node.kind === 'var' && !above.some(isFunction))
      names.push(...declaredBy(node));
  });
  return names;
}

/** Whether a module waits outside of all functions. */
function waitsAtTop(program: SyntaxNode): boolean {
  let waits = false;
  walk(program, (node, above) => {
    const isWait = node.type === 'AwaitExpression' || (node.type === 'ForOfStatement' && node.await === true);
    if (isWait && !above.some((a) => isFunction(a) || a.type === 'StaticBlock' || a.type === 'PropertyDefinition'))
      waits = true;
  });
  return waits;
}
