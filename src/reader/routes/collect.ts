import type { SourceText } from '../source-text.ts';
import { bare, constantText, isFunction, isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import type { RouteEntry, RouteExpression, RouteSheet, Texts, View } from './expressions.ts';
import { loading } from './loading.ts';
import { isDeferredImport, isMarkup, onlyWraps, tagOf } from './markup.ts';
import { makesParented, parentedRoutes } from './parented.ts';
import { textOf, textsOf } from './texts.ts';
import { attributeValue, dottedName, elementsGiven, returnsOf, viewsGiven, viewsOf } from './views.ts';
import { hasEntries, importsDeferred, isAwaited, mayHold, onlyRedirects, pagesNamedIn } from './within.ts';

/** Elements that are a route, and those that only hold some (names shared by the client routers of several frameworks). */
const ROUTE_ELEMENT = /^(\w+Route|Route)$/;
const HOLDS_ELEMENTS = /^(Routes|Switch|Router|\w+Router|Fragment)$/;
/** Methods of lists that keep what the list holds. */
const LIST_METHODS = ['map', 'filter', 'concat', 'flat', 'flatMap', 'sort', 'reverse', 'slice'];
/** Functions of route modules: what stands in a list of `route()`, `index()`, `layout()` and `prefix()` calls. */
const BUILDERS = ['route', 'index', 'layout', 'prefix'];
/** Keys of an entry that hold what is drawn, in the order in which they count. */
const VIEW_KEYS = [
  ...['element', 'component', 'Component', 'components', 'lazy', 'loadComponent', 'view', 'page', 'screen', 'render'],
];
/** Keys that hold deferred imports or elements, and no view. */
const NO_VIEW =
  /^(path|index|children|routes|childRoutes|loadChildren|layout|Layout|loader|action|client\w+|error\w*|ErrorBoundary|\w*[fF]allback\w*|icon|\w*Icon|label|title|handle|meta|data|props|guards?|can[A-Z]\w*|resolve|providers|before\w+|on[A-Z]\w+|pending\w+|notFound\w*|\w*[pP]laceholder)$/;

/**
 * Reads what a module says about routes: lists of objects with paths, trees of route elements, lists of route modules; as
 * variables, spreads, conditions and functions put them together. `templates`: what it draws, where that is written apart from its script, in the form
 * of the same nodes. Null where it says nothing that could matter.
 */
export function collectRoutes(
  program: SyntaxNode,
  source: SourceText,
  templates: readonly SyntaxNode[] = [],
): RouteSheet | null {
  const collector = new Collector(program, source);
  return collector.sheet(templates);
}

class Collector {
  private readonly imported: RouteSheet['imported'] = new Map();
  private readonly exported: RouteSheet['exported'] = new Map();
  private readonly declared: RouteSheet['declared'] = new Set();
  private readonly texts: RouteSheet['texts'] = new Map();
  private readonly views: RouteSheet['views'] = new Map();
  private readonly roots: RouteSheet['roots'] = [];
  /** Top-level functions by name. */
  private readonly functions = new Map<string, SyntaxNode>();
  private buildsModules = false;

  constructor(
    private readonly program: SyntaxNode,
    private readonly source: SourceText,
  ) {}

  sheet(templates: readonly SyntaxNode[]): RouteSheet | null {
    const body = this.program.body as SyntaxNode[];
    for (const statement of body) this.noteNames(statement);
    for (const [name, fn] of this.functions) this.noteView(name, fn);
    for (const statement of body) this.findRoots(statement);
    for (const template of templates) this.findRootsBelow(template, 'default');
    const pages = new Set(this.roots.flatMap(({ expression }) => pagesNamedIn(expression)));
    for (const [name, fn] of this.functions) if (pages.has(name)) this.notePlaceOf(name, fn);
    const { imported, exported, declared, texts, views, roots } = this;
    const parented = parentedRoutes(this.program, this.source, this.functions);
    if (roots.length + views.size + texts.size + parented.length === 0) return null;
    return { imported, exported, declared, texts, views, roots, parented };
  }

  private noteNames(statement: SyntaxNode): void {
    if (statement.type === 'ImportDeclaration') {
      const specifier = constantText(statement.source);
      for (const item of statement.specifiers as SyntaxNode[]) {
        const local = nameOf(item.local);
        if (local === null || specifier === null) continue;
        const whole = item.type === 'ImportNamespaceSpecifier' ? '*' : 'default';
        const exported = item.type === 'ImportSpecifier' ? (nameOf(item.imported) ?? local) : whole;
        this.imported.set(local, { specifier, exported });
        if (BUILDERS.includes(exported) && /routes?$/.test(specifier)) this.buildsModules = true;
      }
    } else if (statement.type === 'ExportNamedDeclaration' || statement.type === 'ExportDefaultDeclaration') {
      this.noteExports(statement);
    } else this.noteDeclared(statement);
  }

  private noteExports(statement: SyntaxNode): void {
    const { declaration } = statement;
    const isDefault = statement.type === 'ExportDefaultDeclaration';
    if (isNode(declaration)) {
      const names = this.noteDeclared(declaration);
      if (!isDefault) for (const name of names) this.exported.set(name, name);
      else {
        const name = names[0] ?? nameOf(declaration) ?? 'default';
        this.exported.set('default', name);
        if (names.length === 0 && declaration.type !== 'Identifier') this.noteDeclared(declaration, 'default');
      }
    }
    for (const item of (statement.specifiers as SyntaxNode[] | undefined) ?? []) {
      const [local, exported] = [nameOf(item.local), nameOf(item.exported)];
      if (local !== null && exported !== null && !statement.source) this.exported.set(exported, local);
    }
  }

  /** Notes what is declared at the top; gives the names. */
  private noteDeclared(statement: SyntaxNode, as?: string): string[] {
    const names = this.namesDeclared(statement, as);
    for (const name of names) this.declared.add(name);
    return names;
  }

  private namesDeclared(statement: SyntaxNode, as?: string): string[] {
    if (statement.type === 'FunctionDeclaration' || statement.type === 'ClassDeclaration' || isFunction(statement)) {
      const name = as ?? nameOf(statement.id);
      if (name !== null && isFunction(statement)) this.functions.set(name, statement);
      return name === null ? [] : [name];
    }
    if (as !== undefined) {
      this.noteValue(as, statement);
      return [as];
    }
    if (statement.type === 'TSEnumDeclaration') return this.noteEnum(statement);
    if (statement.type !== 'VariableDeclaration') return [];
    return (statement.declarations as SyntaxNode[]).flatMap((declarator) => {
      const name = nameOf(declarator.id);
      if (name === null || !isNode(declarator.init)) return [];
      this.noteValue(name, declarator.init);
      return [name];
    });
  }

  private noteValue(name: string, value: SyntaxNode): void {
    const texts = textsOf(value);
    if (texts !== null) this.texts.set(name, texts);
    if (isFunction(value)) this.functions.set(name, value);
    else this.noteView(name, value);
  }

  private noteEnum(statement: SyntaxNode): string[] {
    const name = nameOf(statement.id);
    const members = ((statement.body as SyntaxNode | undefined)?.members ?? statement.members) as SyntaxNode[];
    const keys: { [key: string]: Texts } = Object.create(null);
    for (const member of members ?? []) {
      const [key, text] = [nameOf(member.id), constantText(member.initializer)];
      if (key !== null && text !== null) keys[key] = { text };
    }
    if (name !== null) this.texts.set(name, { keys });
    return name === null ? [] : [name];
  }

  /** A top-level name that stands for a view elsewhere: a deferred import, or what a helper makes of a component. */
  private noteView(name: string, value: SyntaxNode): void {
    if (!isFunction(value) && value.type !== 'CallExpression' && value.type !== 'ObjectExpression') return;
    if (isFunction(value)) {
      // A function that draws one of its own imports is a component itself, unless it draws nothing else.
      const given = returnsOf(value);
      const views = viewsGiven(value, this.functions);
      const passesOn =
        given.every((g) => onlyWraps(g) || isDeferredImport(g)) && views.every((v) => this.isDeferred(v));
      if (passesOn && views.length > 0) this.views.set(name, views);
      return;
    }
    const views = viewsOf(value, this.functions);
    if (views.length > 0) this.views.set(name, views);
  }

  /**
   * A component beside the routes that one of them names, and that only makes room for one deferred page, with markup of its own around it: that
   * page is meant. One that draws several, or routes, or what it is handed, is a page or a layout itself.
   */
  private notePlaceOf(name: string, fn: SyntaxNode): void {
    if (this.views.has(name) || this.roots.some((r) => r.owner === name)) return;
    const pages = new Map<string, View>();
    for (const view of elementsGiven(fn, this.functions))
      if (view.by === 'import') pages.set(view.specifier, view);
      else if (view.by === 'name' && view.name.name !== 'Suspense' && this.isDeferred(view))
        pages.set(view.name.name, view);
    if (pages.size === 1) this.views.set(name, [...pages.values()]);
  }

  private isDeferred(view: View): boolean {
    if (view.by === 'import') return true;
    if (view.by !== 'name' || view.name.keys.length > 0) return false;
    const { name } = view.name;
    return name === 'Suspense' || (this.views.get(name)?.some((v) => v.by === 'import') ?? false);
  }

  /** Claims the outermost expressions with routes below a statement. */
  private findRoots(statement: SyntaxNode): void {
    const declared = statement.type.startsWith('Export') ? statement.declaration : statement;
    if (!isNode(declared)) return;
    if (declared.type === 'VariableDeclaration')
      for (const declarator of declared.declarations as SyntaxNode[]) {
        const before = this.roots.length;
        this.findRootsBelow(declarator, nameOf(declarator.id));
        if (this.roots.length === before) this.noteNamed(declarator);
      }
    else
      this.findRootsBelow(
        declared,
        nameOf(declared.id) ?? (statement.type === 'ExportDefaultDeclaration' ? 'default' : null),
      );
  }

  private findRootsBelow(node: SyntaxNode, owner: string | null): void {
    const expression = this.begins(node) ? this.expressionOf(node) : null;
    if (expression && hasEntries(expression)) {
      this.roots.push({ owner, expression, onlyNamed: false });
      return;
    }
    for (const field in node) {
      const value = node[field];
      for (const item of Array.isArray(value) ? value : [value]) if (isNode(item)) this.findRootsBelow(item, owner);
    }
  }

  /** A single entry under a name, or routes of others under a new name. */
  private noteNamed({ id, init }: SyntaxNode): void {
    const owner = nameOf(id);
    if (owner === null || !isNode(init) || isFunction(init)) return;
    const expression = this.expressionOf(init);
    if (expression && (hasEntries(expression) || /rout|page|screen|view/i.test(owner)))
      this.roots.push({ owner, expression, onlyNamed: true });
  }

  /** Whether routes can begin here. */
  private begins(node: SyntaxNode): boolean {
    if (node.type === 'ArrayExpression') return true;
    if (node.type === 'JSXElement') return ROUTE_ELEMENT.test(tagOf(node)) || HOLDS_ELEMENTS.test(tagOf(node));
    if (node.type !== 'CallExpression' || makesParented(node)) return false;
    return /^(define|create)\w*Route/.test(nameOf(node.callee) ?? '');
  }

  /** What a value holds of routes; null where it can't hold any. */
  private expressionOf(given: unknown): RouteExpression | null {
    if (!isNode(given)) return null;
    const node = bare(given);
    switch (node.type) {
      case 'ArrayExpression':
        return this.listOf(node.elements as unknown[]);
      case 'SpreadElement':
        return this.expressionOf(node.argument);
      case 'ObjectExpression':
        return this.entryOf(node) ?? this.entriesByName(node);
      case 'JSXElement':
        return this.expressionOfElement(node);
      case 'JSXFragment':
        return this.listOf(node.children as unknown[]);
      case 'ConditionalExpression':
        return this.listOf([node.consequent, node.alternate]);
      case 'LogicalExpression':
        return node.operator === '&&' ? this.expressionOf(node.right) : this.listOf([node.left, node.right]);
      case 'CallExpression':
        return this.expressionOfCall(node);
      case 'Identifier':
      case 'MemberExpression': {
        const name = dottedName(node);
        return name && name.name !== 'undefined' ? { is: 'name', name, line: this.lineOf(node) } : null;
      }
      default:
        return isFunction(node) ? this.listOf(returnsOf(node)) : null;
    }
  }

  private listOf(items: readonly unknown[]): RouteExpression | null {
    const found = items.flatMap((item) => this.expressionOf(item) ?? []);
    return found.length === 0 ? null : { is: 'list', items: found };
  }

  /** An object of entries by names of their own, as in `Object.values(ROUTES)`. */
  private entriesByName(object: SyntaxNode): RouteExpression | null {
    const values = (object.properties as SyntaxNode[]).flatMap((p) =>
      p.type === 'Property' && isNode(p.value) && p.value.type === 'ObjectExpression' ? [p.value] : [],
    );
    const entries = values.flatMap((v) => this.entryOf(v) ?? []);
    return entries.length === 0 || entries.length < values.length ? null : { is: 'list', items: entries };
  }

  private entryOf(object: SyntaxNode): RouteEntry | null {
    const fields = new Map<string, SyntaxNode>();
    for (const property of object.properties as SyntaxNode[]) {
      const key = nameOf(property.key);
      if (key !== null && isNode(property.value)) fields.set(key, property.value);
    }
    const path = fields.get('path');
    const isIndex = fields.get('index')?.value === true;
    const line = this.lineOf(object);
    const children = this.childrenOf(fields, line);
    const views = this.viewsOfFields(fields);
    const redirects = fields.has('redirect') || fields.has('redirectTo') || onlyRedirects(views);
    if (path === undefined && !isIndex && !(children && views.length > 0)) return null;
    if (views.length === 0 && !redirects && !(children && mayHold(children))) return null;
    const text = path ? textOf(path) : '';
    const fallback = fields.has('HydrateFallback') || fields.has('hydrateFallbackElement');
    const waits = {
      ...loading(fields.get('loader'), fields.has('lazy') || isAwaited(fields, this.functions)),
      ...(fallback ? { hasFallback: true as const } : {}),
    };
    return { is: 'route', path: text, views, children, ...waits, redirects, line };
  }

  private childrenOf(fields: ReadonlyMap<string, SyntaxNode>, line: number): RouteExpression | null {
    const [later] = viewsOf(fields.get('loadChildren'), this.functions);
    if (later?.by === 'import') return { is: 'module', specifier: later.specifier, exported: later.exported, line };
    const given = fields.get('children') ?? fields.get('routes') ?? fields.get('childRoutes');
    if (!given) return null;
    const known = this.expressionOf(given);
    const isNothing = given.type === 'Literal' || (given.type === 'ArrayExpression' && !known);
    return known ?? (isNothing ? null : this.unclear(given));
  }

  private viewsOfFields(fields: ReadonlyMap<string, SyntaxNode>): View[] {
    const layout = viewsOf(fields.get('layout') ?? fields.get('Layout'), this.functions);
    const around = layout.flatMap((v): View[] => (v.by === 'name' ? [{ by: 'layout', name: v.name }] : [v]));
    // Under a name of their own, views show by their form.
    const others = [...fields].filter(
      ([key, value]) => !NO_VIEW.test(key) && (isMarkup(value) || importsDeferred(value)),
    );
    const given = [...VIEW_KEYS.map((key) => fields.get(key)), ...others.map(([, value]) => value)];
    const element = constantText(fields.get('component'));
    if (element !== null && /^[a-z][\w.]*-[\w.-]*$/.test(element)) return [...around, { by: 'element', element }];
    const [first = []] = given.map((value) => viewsOf(value, this.functions)).filter((v) => v.length > 0);
    return [...around, ...(first.length === 0 && given.some(isMarkup) ? [{ by: 'here' } as const] : first)];
  }

  private expressionOfElement(element: SyntaxNode): RouteExpression | null {
    const tag = tagOf(element);
    const opening = element.openingElement as SyntaxNode;
    const children = element.children as unknown[];
    if (!ROUTE_ELEMENT.test(tag)) {
      const within = this.listOf(children.filter((c) => isNode(c) && c.type !== 'JSXText'));
      // Names inside of other elements are whatever they are, not routes.
      if (!HOLDS_ELEMENTS.test(tag) && !(within && hasEntries(within))) return null;
      const around = /Router$/.test(tag) ? viewsOf(attributeValue(opening, 'root'), this.functions) : [];
      if (!within || around.length === 0) return within;
      return { is: 'route', path: '', views: around, children: within, redirects: false, line: this.lineOf(element) };
    }
    const given = attributeValue(opening, 'path');
    const isIndex = (opening.attributes as SyntaxNode[]).some((a) => nameOf(a.name) === 'index');
    // A guard that hands on what it was given is told its path where it is used.
    const handsOn = (opening.attributes as SyntaxNode[]).some((a) => a.type === 'JSXSpreadAttribute');
    if (handsOn && given === undefined && !isIndex) return null;
    const line = this.lineOf(element);
    const inner = this.listOf(children.filter((c) => isNode(c) && c.type !== 'JSXText'));
    const nested = inner && hasEntries(inner) ? inner : null;
    const attributes = ['element', 'component', 'Component', 'render', 'lazy', 'view', 'children'];
    const [own = []] = attributes
      .map((a) => viewsOf(attributeValue(opening, a), this.functions))
      .filter((v) => v.length);
    const drawn = attributes.some((a) => isMarkup(attributeValue(opening, a)));
    const inside = own.length > 0 || nested ? [] : children.flatMap((c) => viewsOf(c, this.functions));
    const views: View[] = own.length === 0 && inside.length === 0 && drawn ? [{ by: 'here' }] : [...own, ...inside];
    // Names among the children of a route that has a view of its own, or none, are more routes.
    const more = nested ?? (inside.length === 0 ? inner : null);
    if (given === undefined && !isIndex && !more && views.length === 0) return null;
    const paths = isNode(given) && given.type === 'ArrayExpression' ? (given.elements as unknown[]) : [given];
    const entries = paths.map((path): RouteEntry => {
      const text = path === undefined ? (isIndex || more ? '' : '*') : textOf(path);
      const loads = loading(attributeValue(opening, 'loader'), isNode(attributeValue(opening, 'lazy')));
      return { is: 'route', path: text, views, children: more, ...loads, redirects: onlyRedirects(views), line };
    });
    return entries.length === 1 ? entries[0] : { is: 'list', items: entries };
  }

  private expressionOfCall(call: SyntaxNode): RouteExpression | null {
    const callee = call.callee as SyntaxNode;
    const given = call.arguments as SyntaxNode[];
    if (callee.type === 'MemberExpression') {
      const method = nameOf(callee.property) ?? '';
      if (nameOf(callee.object) === 'Object' && (method === 'values' || method === 'entries'))
        return this.expressionOf(given[0]);
      if (LIST_METHODS.includes(method)) return this.listOf([callee.object, ...(method === 'concat' ? given : [])]);
      const within = this.listOf(given);
      return within && hasEntries(within) ? within : null;
    }
    const name = nameOf(callee) ?? '';
    if (this.buildsModules && BUILDERS.includes(name)) return this.moduleEntry(name, given, call);
    const within = this.listOf(given.filter((g) => !isFunction(g)));
    if (within && (hasEntries(within) || /[rR]outes?/.test(name))) return within;
    return given.length === 0 && name !== '' ? { is: 'name', name: { name, keys: [] }, line: this.lineOf(call) } : null;
  }

  /** `route(path, file, children?)`, `index(file)`, `layout(file, children?)`, `prefix(path, children)`. */
  private moduleEntry(builder: string, given: SyntaxNode[], call: SyntaxNode): RouteExpression | null {
    const texts = given.map(textOf);
    const list = given.slice(builder === 'index' ? given.length : 1).at(-1);
    const children =
      list && list.type !== 'ObjectExpression' && constantText(list) === null ? this.expressionOf(list) : null;
    const line = this.lineOf(call);
    if (builder === 'prefix') return children && { is: 'prefix', path: texts[0], inner: children };
    const [path, file] = builder === 'route' ? texts : ['', texts[0]];
    if (typeof file !== 'string') return this.unclear(call);
    return { is: 'route', path, views: [{ by: 'file', file }], children, redirects: false, line };
  }

  private unclear(node: SyntaxNode): RouteExpression {
    const text = this.source.text.slice(node.start, Math.min(node.end, node.start + 60)).replace(/\s+/g, ' ');
    return { is: 'unclear', said: text, line: this.lineOf(node) };
  }

  private lineOf(node: SyntaxNode): number {
    return this.source.place(node.start).line;
  }
}
