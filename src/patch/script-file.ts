import { parse } from '../reader/script/parse.ts';
import { languageOf } from '../reader/script/shipped-code.ts';
import { SourceText } from '../reader/source-text.ts';
import { constantText, nameOf, type SyntaxNode, walk } from '../reader/syntax.ts';

/** A place where a name stands, with the nodes around it, nearest last. */
export interface Reference {
  node: SyntaxNode;
  above: readonly SyntaxNode[];
}

/** One name that an import statement binds. */
export interface Binding {
  local: string;
  /** `default`, `*`, or the name in the other module. */
  imported: string;
  isType: boolean;
  node: SyntaxNode;
}

/** One source file: its text and its tree, and where names stand in it. */
export class ScriptFile {
  readonly program: SyntaxNode;
  readonly source: SourceText;

  constructor(
    readonly path: string,
    readonly text: string,
  ) {
    this.program = parse(path, text, { lang: languageOf(path) }).program();
    this.source = new SourceText(text);
  }

  get body(): SyntaxNode[] {
    return this.program.body as SyntaxNode[];
  }

  of(node: SyntaxNode): string {
    return this.text.slice(node.start, node.end);
  }

  /** Quotes as the file writes them. */
  quoted(text: string): string {
    const single = /(?:from|import\()\s*'/.test(this.text) || !/(?:from|import\()\s*"/.test(this.text);
    return single ? `'${text}'` : JSON.stringify(text);
  }

  get newline(): string {
    return this.text.includes('\r\n') ? '\r\n' : '\n';
  }

  /** Whether types may stand in the file. */
  get isTyped(): boolean {
    return /\.[cm]?tsx?$/.test(this.path);
  }

  /** Whether markup may stand in the file: its name says so, or it has some already. */
  get hasMarkup(): boolean {
    if (/\.[jt]sx$/.test(this.path)) return true;
    let found = false;
    walk(this.program, (node) => {
      found ||= node.type === 'JSXElement' || node.type === 'JSXFragment';
    });
    return found;
  }

  imports(): SyntaxNode[] {
    return this.body.filter((s) => s.type === 'ImportDeclaration');
  }

  /**
   * All places where a name is meant; null when it is bound more often than expected: 0 times beside its import, or
   * once for a name that the file itself declares.
   */
  references(local: string, bindings = 0): Reference[] | null {
    const found: Reference[] = [];
    let bound = 0;
    walk(this.program, (node, above) => {
      if ((node.type !== 'Identifier' && node.type !== 'JSXIdentifier') || node.name !== local) return;
      const parent = above.at(-1);
      if (!parent || /^Import\w*Specifier$/.test(parent.type) || isLabel(node, parent)) return;
      if (found.some((f) => f.node.start === node.start)) return;
      if (binds(node, above)) bound++;
      else found.push({ node, above: [...above] });
    });
    return bound > bindings ? null : found;
  }

  /** Whether anything in the file goes by that name. */
  knows(name: string): boolean {
    let found = false;
    walk(this.program, (node) => {
      found ||= (node.type === 'Identifier' || node.type === 'JSXIdentifier') && node.name === name;
    });
    return found;
  }

  /** Where a function begins as it is written: a method with its name. */
  beginningOf(fn: SyntaxNode): number {
    let found = fn.start;
    walk(this.program, (node) => {
      const isMethod = node.type === 'MethodDefinition' || (node.type === 'Property' && node.method === true);
      if (isMethod && node.value === fn) found = (node.key as SyntaxNode).start;
    });
    return found;
  }

  /** White space before the line on which something begins. */
  indentOf({ start }: SyntaxNode): string {
    const line = this.text.lastIndexOf('\n', start - 1) + 1;
    return /^[ \t]*/.exec(this.text.slice(line))![0];
  }
}

/** What an import statement binds. */
export function bindingsOf(statement: SyntaxNode): Binding[] {
  return ((statement.specifiers as SyntaxNode[] | undefined) ?? []).map((node) => ({
    local: nameOf(node.local) ?? '',
    imported:
      node.type === 'ImportDefaultSpecifier'
        ? 'default'
        : node.type === 'ImportNamespaceSpecifier'
          ? '*'
          : (nameOf(node.imported) ?? ''),
    isType: node.importKind === 'type' || statement.importKind === 'type',
    node,
  }));
}

export function specifierOf(statement: SyntaxNode): string | null {
  return constantText(statement.source);
}

/** References that are left once the code is compiled. */
export function withoutTypes(references: readonly Reference[]): Reference[] {
  return references.filter((r) => !isInType(r));
}

export function isInType({ above }: Reference): boolean {
  return above.some((n) =>
    /^TS(TypeReference|TypeQuery|ExpressionWithTypeArguments|InterfaceHeritage|ClassImplements|QualifiedName)$/.test(
      n.type,
    ),
  );
}

/** A name that only labels something: a key, a member, an attribute. */
function isLabel(node: SyntaxNode, parent: SyntaxNode): boolean {
  switch (parent.type) {
    case 'MemberExpression':
    case 'JSXMemberExpression':
      return parent.property === node && parent.computed !== true;
    case 'Property':
      // Of a short form the value is looked at, which stands in the same place.
      return parent.key === node && parent.computed !== true;
    case 'MethodDefinition':
    case 'PropertyDefinition':
    case 'TSPropertySignature':
    case 'TSMethodSignature':
    case 'TSEnumMember':
      return parent.key === node && parent.computed !== true;
    case 'JSXAttribute':
      return parent.name === node;
    case 'ExportSpecifier':
      return parent.local !== node;
    case 'LabeledStatement':
    case 'BreakStatement':
    case 'ContinueStatement':
      return true;
    default:
      return false;
  }
}

/** Whether the name is bound here: declared, a parameter, or part of a pattern that is. */
function binds(node: SyntaxNode, above: readonly SyntaxNode[]): boolean {
  let child = node;
  for (let at = above.length - 1; at >= 0; at--) {
    const parent = above[at];
    switch (parent.type) {
      case 'ObjectPattern':
      case 'ArrayPattern':
      case 'RestElement':
        break;
      case 'Property':
        if (parent.value !== child || above[at - 1]?.type !== 'ObjectPattern') return false;
        break;
      case 'AssignmentPattern':
        if (parent.left !== child) return false;
        break;
      case 'VariableDeclarator':
      case 'FunctionDeclaration':
      case 'FunctionExpression':
      case 'ArrowFunctionExpression':
      case 'ClassDeclaration':
      case 'ClassExpression':
      case 'CatchClause':
        return (
          parent.id === child ||
          parent.param === child ||
          (Array.isArray(parent.params) && (parent.params as unknown[]).includes(child))
        );
      default:
        return /^TS(EnumDeclaration|ModuleDeclaration|TypeAliasDeclaration|InterfaceDeclaration|TypeParameter)$/.test(
          parent.type,
        )
          ? parent.id === child || parent.name === child
          : false;
    }
    child = parent;
  }
  return false;
}
