import { importedBindings, importedNames } from '../script/imported-bindings.ts';
import { parse } from '../script/parse.ts';
import { constantText, isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import { componentFile } from '../templates/component-file.ts';

/** What is declared under a name, and the module in which. */
export interface Declared {
  path: string;
  node: SyntaxNode;
}

/** Modules of an app whose types are looked up. */
export interface TypedModules {
  /** The text of a module's file; null where there is none. */
  textOf: (path: string) => string | null;
  /** The module that a specifier leads to, types too; null where that is none of the app or its packages. */
  leadsTo: (from: string, specifier: string) => string | null;
  /** What builds put in place of what scripts ask of their environment, by name. */
  told?: Readonly<Record<string, string>>;
}

interface Scope {
  own: Map<string, SyntaxNode>;
  /** local name → specifier, and the name that it has there. */
  bindings: ReadonlyMap<string, string>;
  names: ReadonlyMap<string, string>;
  /** Exported name → its name in the module. */
  exported: Map<string, string>;
  passed: Map<string, { specifier: string; name: string }>;
  stars: string[];
}

/** How many modules pass on a name at most. */
const DEEPEST = 8;

/** Types, schemas and constants that modules declare, by their names; each module is parsed once, when somebody asks. */
export class Declarations {
  private readonly scopes = new Map<string, Scope | null>();

  constructor(private readonly modules: TypedModules) {}

  /** What a name means in a module: what it declares, or another one that it imports from. */
  find(path: string, name: string, depth = DEEPEST): Declared | null {
    const scope = this.scopeOf(path);
    if (!scope || depth === 0) return null;
    const node = scope.own.get(name);
    if (node) return { path, node };
    const [specifier, there] = [scope.bindings.get(name), scope.names.get(name)];
    return specifier !== undefined && there !== undefined ? this.from(path, { specifier, name: there }, depth) : null;
  }

  /** The module that defines what another one exports under a name; null where that isn't known. */
  home(path: string, name: string): string | null {
    return this.exported(path, name, DEEPEST)?.path ?? null;
  }

  private exported(path: string, name: string, depth: number): Declared | null {
    const scope = this.scopeOf(path);
    if (!scope || depth === 0) return null;
    const local = scope.exported.get(name);
    if (local !== undefined) return this.find(path, local, depth);
    const passed = scope.passed.get(name);
    if (passed) return this.from(path, passed, depth);
    for (const specifier of scope.stars) {
      const found = this.from(path, { specifier, name }, depth);
      if (found) return found;
    }
    return null;
  }

  private from(path: string, { specifier, name }: { specifier: string; name: string }, depth: number): Declared | null {
    const to = this.modules.leadsTo(path, specifier);
    return to === null ? null : this.exported(to, name, depth - 1);
  }

  private scopeOf(path: string): Scope | null {
    const known = this.scopes.get(path);
    if (known !== undefined) return known;
    const program = typedProgram(path, this.modules.textOf(path))?.program ?? null;
    const scope = program && scopeIn(program);
    this.scopes.set(path, scope);
    return scope;
  }
}

/** The tree of a module's script with its types, and the script; null where it has none, or can't be parsed. */
export function typedProgram(path: string, text: string | null): { program: SyntaxNode; script: string } | null {
  if (text === null) return null;
  const component = componentFile(path, text);
  const script = component?.script ?? text;
  const as = component?.scriptPath ?? path;
  if (!/\.[cm]?[jt]sx?$/.test(as)) return null;
  const parsed = parse(as, script, { astType: 'ts' });
  return parsed.errors.some((e) => e.severity === 'Error') ? null : { program: parsed.program(), script };
}

function scopeIn(program: SyntaxNode): Scope {
  const scope: Scope = {
    ...{ own: new Map(), bindings: importedBindings(program), names: importedNames(program) },
    ...{ exported: new Map(), passed: new Map(), stars: [] },
  };
  for (const statement of program.body as SyntaxNode[]) {
    const specifier = constantText(statement.source);
    const items = (statement.specifiers as SyntaxNode[] | undefined) ?? [];
    switch (statement.type) {
      case 'ExportAllDeclaration':
        if (specifier !== null) scope.stars.push(specifier);
        break;
      case 'ExportNamedDeclaration':
        for (const item of items) {
          const [local, as] = [nameOf(item.local)!, nameOf(item.exported)!];
          if (specifier === null) scope.exported.set(as, local);
          else scope.passed.set(as, { specifier, name: local });
        }
        for (const name of declare(statement.declaration, scope)) scope.exported.set(name, name);
        break;
      case 'ExportDefaultDeclaration':
        for (const name of [...declare(statement.declaration, scope), nameOf(statement.declaration)])
          if (name !== null) scope.exported.set('default', name);
        break;
      default:
        declare(statement, scope);
    }
  }
  return scope;
}

/** Notes what a statement declares; gives the names. */
function declare(statement: unknown, { own }: Scope): string[] {
  if (!isNode(statement)) return [];
  if (statement.type === 'VariableDeclaration')
    return (statement.declarations as SyntaxNode[]).flatMap(({ id, init }) => {
      const name = nameOf(id);
      if (name === null || !isNode(init)) return [];
      own.set(name, init);
      return [name];
    });
  if (!/^(TSInterface|TSTypeAlias|TSEnum|Class|Function)Declaration$/.test(statement.type)) return [];
  const name = nameOf(statement.id);
  if (name === null) return [];
  own.set(name, statement);
  return [name];
}
