import { minifySync } from 'oxc-minify';
import type { EcmaScriptModule } from 'oxc-parser';
import { transformSync } from 'oxc-transform';
import type { DeferredContext } from '../core/snapshot/module-types.ts';
import { actUses } from './act-uses.ts';
import { type FileGlob, fileGlobOf } from './file-globs.ts';
import type { FoundImport } from './found-import.ts';
import { parse } from './parse.ts';
import { type ComponentUse, type DrawnTree, findComponentUses } from './parts/component-uses.ts';
import { mountedBy } from './parts/shells.ts';
import { collectRoutes } from './routes/collect.ts';
import type { RouteSheet } from './routes/expressions.ts';
import { SourceText } from './source-text.ts';
import { syncUses } from './sync-uses.ts';
import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from './syntax.ts';
import { takenNames } from './taken-names.ts';
import { type AngularScript, angularScript, type ResourceReader } from './templates/angular.ts';
import { definedElements, MAY_HOLD_MARKUP, markupOfTaggedTemplates } from './templates/tagged-markup.ts';

export interface ParsedScript {
  imports: FoundImport[];
  /** Scripts that run in workers: `new URL('./x', import.meta.url)` handed to a worker. */
  workers: { specifier: string; line: number }[];
  /** Imports whose specifier isn't a constant. */
  unclear: { specifier: string; line: number; reason: string; leftOut: boolean }[];
  /** What it says about routes; null where that is nothing. */
  routes: RouteSheet | null;
  /** Components that it draws. */
  uses: ComponentUse[];
  /** Specifiers of what it mounts as a whole app. */
  mounts: string[];
  /** Names of elements that stand for a component of it. */
  elements: string[];
  /** Specifiers of components that only blocks of a template ask for which are drawn later, with the elements that others ask for. */
  later: { specifiers: Set<string>; elements: Set<string>; atOnce: Set<string> } | null;
  /** What of it couldn't be understood. */
  told: { line: number; message: string }[];
  /** Names that it passes on, by specifier, and those that it defines. */
  exports: ScriptExports;
  /** Files that it names by address: `new URL('./x', import.meta.url)`. */
  assets: { specifier: string; line: number; start: number; end: number }[];
  /** Deferred imports of any file that fits: constant beginning and end around something computed. */
  globs: FoundGlob[];
  /** Files that it asks for by a pattern. */
  fileGlobs: FileGlob[];
  /** Templates and styles that a component's description names. */
  resources: { specifier: string }[];
  /** Where it waits for something else than an import while it starts. */
  waits: { line: number }[];
  /** Without imports and exports of its own, it gives and takes by `require`, `module` and `exports`. */
  commonJs: boolean;
  /** Plain JavaScript: types and markup syntax compiled away. */
  code: string;
  error: { line: number; message: string } | null;
}

export interface ScriptExports {
  named: { name: string; specifier: string; imported: string }[];
  stars: string[];
  own: string[];
}

export interface FoundGlob {
  prefix: string;
  suffix: string;
  found: FoundImport;
}

const NO_EXPORTS: ScriptExports = { named: [], stars: [], own: [] };

/** Read as it ships: branches for development are gone before requires are followed. */
const PRODUCTION = {
  'process.env.NODE_ENV': '"production"',
  'import.meta.env.DEV': 'false',
  'import.meta.env.PROD': 'true',
  'import.meta.env.SSR': 'false',
  'import.meta.env.MODE': '"production"',
  'import.meta.client': 'true',
  'import.meta.server': 'false',
  'import.meta.dev': 'false',
};

/** What asks in which kind of build it runs, by the conventions that several builds share. */
const ASKS_ENVIRONMENT = /process\.env\.|import\.meta\.(env|client|server|dev)\b/;

type Language = 'ts' | 'tsx' | 'js' | 'jsx';

export interface ParseOptions {
  /** Where compiled markup gets its functions from. */
  jsxImportSource: string;
  /** A template outside of the script may use any import, so that only those marked as types go. */
  usedElsewhere?: boolean;
  /** What a compiler makes of script and template, in the script's language. */
  compiled?: string | null;
  /** The template, as parsed markup of the same file. */
  drawn?: SyntaxNode | null;
  /** Names that stand for components in the template, with where they come from. */
  bindings?: ReadonlyMap<string, string>;
  /** Files that a component's description names. */
  resource?: ResourceReader;
}

/**
 * Parses one script: its imports with their places, as far as they exist at run time. Imports that only serve types
 * are left out, and those that a compiler adds for markup syntax or a template are put in.
 */
export function parseScript(path: string, text: string, options: ParseOptions): ParsedScript {
  const { jsxImportSource, usedElsewhere = false } = options;
  const lang = languageOf(path);
  const parsed = parse(path, text, { lang });
  const source = new SourceText(text);
  const broken = parsed.errors.find((e) => e.severity === 'Error');
  if (broken) {
    const at = broken.labels[0]?.start ?? 0;
    const error = { line: source.place(at).line, message: broken.message };
    return { ...emptyScript(text), error };
  }
  const own = !path.includes('node_modules/');
  const { program } = parsed;
  const describes = own && options.resource && /@Component\s*\(/.test(text);
  const angular = describes ? angularScript(program(), source, options.resource!) : null;
  const compiled = options.compiled ?? angular?.code ?? null;
  const plain = compiled === null && shipsAsWritten(path, text);
  const code = plain
    ? text
    : shippedCode(path, compiled ?? text, lang, jsxImportSource, usedElsewhere && compiled === null);
  const live = plain ? parsed.module : parse('out.js', code).module;
  const result = emptyScript(code);
  result.imports = staticImportsOf(parsed.module, liveNamesOf(live), source);
  result.commonJs = !parsed.module.hasModuleSyntax && /\b(require|exports|module)\b/.test(text);
  if (live.hasModuleSyntax && /\bawait\b/.test(text)) result.waits = waitsAtStart(program(), source);
  if (/import\s*\(|import\.meta\.glob|require\.context|require\s*\(|new\s+URL\s*\(/.test(text))
    collectCalls(program(), source, result);
  // Routes, elements and parts are those of the app; packages are not the app's to change.
  if (own) noteOwn(program(), source, text, options, angular, parsed.module, result);
  if (ASKS_ENVIRONMENT.test(text) && /\brequire\b|\bimport\s*\(/.test(text)) dropDeadImports(result);
  result.exports = exportsOf(live);
  result.imports.sort((a, b) => a.start - b.start);
  return result;
}

/** Whether a script is plain JavaScript that no build changes before it is made small. */
function shipsAsWritten(path: string, text: string): boolean {
  if (!/\.[cm]?js$/.test(path)) return false;
  return !ASKS_ENVIRONMENT.test(text) && !/<[A-Za-z/>]/.test(text);
}

/** What any script has that says something about routes, or holds a text that may be a path. */
const MAY_SAY_ROUTES = /[rR]oute|[pP]ath|lazy|import\s*\(|["'`]\/|[vV]iew|[pP]age|[sS]creen|[cC]omponent|children/;
const MAY_MOUNT = /createApp|createSSRApp|bootstrapApplication|\bmount\b|hydrate|\brender\b|\btarget\b|\bel\b/;

/** What a script of the app says about routes, elements and parts, and what it needs while it starts. */
function noteOwn(
  program: SyntaxNode,
  source: SourceText,
  text: string,
  options: ParseOptions,
  angular: AngularScript | null,
  module: EcmaScriptModule,
  result: ParsedScript,
): void {
  if (angular) noteAngular(angular, module, program, result);
  if (MAY_SAY_ROUTES.test(text)) result.routes = collectRoutes(program, source);
  if (MAY_MOUNT.test(text)) result.mounts = mountedBy(program);
  if (/customElement/.test(text)) result.elements.push(...definedElements(program));
  noteUses(result.imports, program, source, text);
  result.uses = drawnBy(program, source, text, options, angular);
}

/** Components that a script and its templates draw. */
function drawnBy(
  program: SyntaxNode,
  source: SourceText,
  text: string,
  { drawn, bindings }: ParseOptions,
  angular: AngularScript | null,
): ComponentUse[] {
  const trees: DrawnTree[] = [{ root: program, source }];
  if (drawn) trees.push({ root: drawn, source });
  for (const { template } of angular?.components ?? []) if (template) trees.push(template);
  const tagged = MAY_HOLD_MARKUP.test(text);
  if (tagged) markupOfTaggedTemplates(program, text);
  if (trees.length === 1 && !tagged && !/<[A-Za-z]|createElement/.test(text)) return [];
  return findComponentUses(trees, bindings);
}

/** What the decorators of components say: files that belong to them, elements, and what only blocks ask for that are drawn later. */
function noteAngular(
  angular: AngularScript,
  module: EcmaScriptModule,
  program: SyntaxNode,
  result: ParsedScript,
): void {
  result.resources = resourcesOf(program);
  result.told.push(...angular.told);
  const specifiers = new Set<string>();
  for (const { moduleRequest, entries } of module.staticImports)
    if (entries.length > 0 && entries.every((e) => angular.onlyDescribed.has(e.localName.value)))
      specifiers.add(moduleRequest.value);
  const later = new Set<string>();
  const atOnce = new Set<string>();
  for (const { elements, template } of angular.components) {
    result.elements.push(...elements);
    for (const e of template?.later ?? []) later.add(e);
    for (const e of template?.atOnce ?? []) atOnce.add(e);
  }
  if (later.size > 0) result.later = { specifiers, elements: later, atOnce };
}

/** Style sheets that the decorators of components name: `styleUrl` and `styleUrls` (public form of Angular's). */
function resourcesOf(program: SyntaxNode): { specifier: string }[] {
  const found: { specifier: string }[] = [];
  walk(program, (node) => {
    if (node.type !== 'Decorator' || !isNode(node.expression) || node.expression.type !== 'CallExpression') return;
    const { callee, arguments: given } = node.expression as SyntaxNode & { arguments: SyntaxNode[] };
    if (nameOf(callee) !== 'Component' || given[0]?.type !== 'ObjectExpression') return;
    for (const { key, value } of given[0].properties as SyntaxNode[]) {
      if (!/^styleUrls?$/.test(nameOf(key) ?? '') || !isNode(value)) continue;
      const values = value.type === 'ArrayExpression' ? (value.elements as unknown[]) : [value];
      for (const specifier of values.map(constantText)) if (specifier !== null) found.push({ specifier });
    }
  });
  return found;
}

/** Names that are taken from each specifier in what is left once types are gone. */
function liveNamesOf(live: EcmaScriptModule): Map<string, Set<string>> {
  const names = new Map<string, Set<string>>();
  const note = (specifier: string, taken: string[]) => {
    const known = names.get(specifier) ?? new Set();
    for (const n of taken) known.add(n);
    names.set(specifier, known);
  };
  for (const item of live.staticImports)
    note(
      item.moduleRequest.value,
      item.entries.map((e) => importedName(e.importName)),
    );
  for (const item of live.staticExports) {
    for (const e of item.entries)
      if (e.moduleRequest && isFrom(item, e)) note(e.moduleRequest.value, [importedName(e.importName)]);
  }
  return names;
}

/** Static imports and exports from elsewhere, as written, as far as they are live; then those that the compiler adds. */
function staticImportsOf(
  written: EcmaScriptModule,
  liveNames: ReadonlyMap<string, ReadonlySet<string>>,
  source: SourceText,
): FoundImport[] {
  const imports: FoundImport[] = [];
  const seen = new Set<string>();
  const add = (specifier: string, names: string[], start: number, end: number) => {
    seen.add(specifier);
    imports.push({ kind: 'static', specifier, names, ...source.place(start), start, end });
  };
  for (const item of written.staticImports) {
    const names = liveNames.get(item.moduleRequest.value);
    if (!names) continue;
    const own = item.entries
      .filter((e) => !e.isType)
      .map((e) => importedName(e.importName))
      .filter((n) => names.has(n));
    if (item.entries.length === 0 || own.length > 0) add(item.moduleRequest.value, own, item.start, item.end);
  }
  for (const item of written.staticExports) {
    const request = item.entries.find((e) => isFrom(item, e) && !e.isType)?.moduleRequest;
    if (!request || !liveNames.has(request.value)) continue;
    const names = item.entries.filter((e) => !e.isType).map((e) => importedName(e.importName));
    add(request.value, names, item.start, item.end);
    const passesAll = item.entries.some((e) => e.exportName.kind === 'None' && !e.isType);
    if (passesAll) imports[imports.length - 1].passesAll = true;
  }
  for (const [specifier, names] of liveNames) if (!seen.has(specifier)) add(specifier, [...names], 0, 0);
  return imports;
}

/** Notes of static imports whether the module needs them while it starts, or only when somebody acts. */
function noteUses(imports: FoundImport[], program: SyntaxNode, source: SourceText, text: string): void {
  if (imports.length === 0) return;
  const needed = syncUses(program, source);
  const acted = /\bon[A-Z]|addEventListener/.test(text) ? actUses(program) : new Set();
  for (const item of imports) {
    if (item.kind !== 'static' || item.start === item.end) continue;
    const sync = needed.get(item.specifier);
    if (sync) item.sync = sync;
    else if (acted.has(item.specifier)) item.onActs = true;
  }
}

function emptyScript(code: string): ParsedScript {
  return {
    waits: [],
    imports: [],
    workers: [],
    unclear: [],
    routes: null,
    uses: [],
    mounts: [],
    elements: [],
    later: null,
    told: [],
    exports: NO_EXPORTS,
    assets: [],
    globs: [],
    fileGlobs: [],
    resources: [],
    commonJs: false,
    code,
    error: null,
  };
}

/** Types and markup syntax compiled away; where the build kind is asked for, as the production build answers. */
function shippedCode(path: string, text: string, lang: Language, importSource: string, usedElsewhere: boolean): string {
  const define = ASKS_ENVIRONMENT.test(text) ? { define: environmentOf(path, text) } : {};
  const typescript = { onlyRemoveTypeImports: usedElsewhere };
  return transformSync(path, text, { lang, jsx: { runtime: 'automatic', importSource }, typescript, ...define }).code;
}

/** What is asked of the environment, as a production build answers; whatever else a package asks isn't set in a browser. */
function environmentOf(path: string, text: string): Record<string, string> {
  if (!path.includes('node_modules/')) return PRODUCTION;
  const names = [...text.matchAll(/process\.env\.\w+/g)].map(([name]) => name);
  return { ...Object.fromEntries(names.map((name) => [name, 'undefined'])), ...PRODUCTION };
}

/** Leaves out requires and deferred imports that only a branch for development or the server makes. */
function dropDeadImports(result: ParsedScript): void {
  const { code } = minifySync('out.js', result.code, { compress: true, mangle: false });
  const isThere = (specifier: string) =>
    code.includes(JSON.stringify(specifier)) || code.includes(`'${specifier}'`) || code.includes(`\`${specifier}\``);
  result.imports = result.imports.filter((i) => (i.kind === 'static' && !i.required) || isThere(i.specifier));
}

function exportsOf(module: EcmaScriptModule): ScriptExports {
  const exports: ScriptExports = { named: [], stars: [], own: [] };
  // `import { a } from './a'; export { a };` passes a name on as well.
  const passed = new Map<number, { specifier: string; imported: string }>();
  for (const { entries, moduleRequest } of module.staticImports)
    for (const e of entries)
      for (const place of [e.importName.start, e.localName.start])
        if (place !== null) passed.set(place, { specifier: moduleRequest.value, imported: importedName(e.importName) });
  for (const item of module.staticExports) {
    for (const e of item.entries) {
      const name = e.exportName.kind === 'Default' ? 'default' : e.exportName.name;
      if (!e.moduleRequest || !isFrom(item, e)) {
        const from = e.moduleRequest ? passed.get(e.importName.start ?? -1) : undefined;
        if (name && from) exports.named.push({ name, ...from });
        else if (name) exports.own.push(name);
      } else if (name)
        exports.named.push({ name, specifier: e.moduleRequest.value, imported: importedName(e.importName) });
      else exports.stars.push(e.moduleRequest.value);
    }
  }
  return exports;
}

type ExportItem = EcmaScriptModule['staticExports'][number];

/** Whether an export names its module in the same statement; the parser lists an imported name that is exported under its import. */
function isFrom({ start, end }: ExportItem, entry: ExportItem['entries'][number]): boolean {
  return entry.moduleRequest !== null && entry.start >= start && entry.end <= end;
}

function importedName(name: { kind: string; name: string | null }): string {
  if (name.kind === 'Default') return 'default';
  return name.name ?? '*';
}

export function languageOf(path: string): Language {
  if (/\.[mc]?ts$/.test(path)) return 'ts';
  if (path.endsWith('.tsx')) return 'tsx';
  return 'jsx';
}

function collectCalls(program: SyntaxNode, source: SourceText, result: ParsedScript): void {
  walk(program, (node, above) => {
    if (node.type === 'ImportExpression') {
      const specifier = constantText(node.source);
      const place = source.place(node.start);
      const said = source.text.slice(node.start, (node.source as SyntaxNode).start);
      if (/\w[iI]gnore\b/.test(said)) {
        const written = specifier ?? source.text.slice(node.start, Math.min(node.end, node.start + 80));
        const reason = 'a comment leaves it to the browser';
        result.unclear.push({ specifier: written, line: place.line, reason, leftOut: true });
        return;
      }
      const glob = specifier === null ? globOf(node.source) : null;
      if (glob) {
        const context = contextOf(node, above);
        result.globs.push({
          ...glob,
          found: {
            kind: 'dynamic',
            specifier: `${glob.prefix}*${glob.suffix}`,
            names: ['*'],
            context,
            ...place,
            start: node.start,
            end: node.end,
          },
        });
        return;
      }
      if (specifier === null) {
        const written = source.text.slice(node.start, Math.min(node.end, node.start + 80));
        const reason = 'the address is not a constant';
        result.unclear.push({ specifier: written, line: place.line, reason, leftOut: false });
        return;
      }
      const context = contextOf(node, above);
      const waits = context === 'module' && above.at(-1)?.type === 'AwaitExpression';
      const taken = takenNames(above);
      result.imports.push({
        kind: 'dynamic',
        specifier,
        names: ['*'],
        context,
        ...(waits ? { awaited: true } : {}),
        ...(taken ? { taken } : {}),
        ...place,
        start: node.start,
        end: node.end,
      });
    } else if (node.type === 'CallExpression' && nameOf(node.callee) === 'require') {
      const specifier = constantText((node.arguments as unknown[])[0]);
      if (specifier !== null) {
        result.imports.push({
          kind: 'static',
          specifier,
          names: ['*'],
          required: true,
          ...source.place(node.start),
          start: node.start,
          end: node.end,
        });
      }
    } else if (node.type === 'CallExpression') {
      const glob = fileGlobOf(node, source);
      if (glob) result.fileGlobs.push(glob);
    } else if (node.type === 'NewExpression' && nameOf(node.callee) === 'URL') {
      const [first, base] = node.arguments as SyntaxNode[];
      const address = constantText(first);
      // An address is relative, with a dot at its beginning or without.
      const specifier = address !== null && /^[\w@-][^:]*$/.test(address) ? `./${address}` : address;
      if (specifier === null || !base || !source.text.slice(base.start, base.end).includes('import.meta.url')) return;
      const { line } = source.place(node.start);
      const parent = above[above.length - 1];
      if (parent?.type === 'NewExpression' && /Worker$/.test(calledName(parent)))
        result.workers.push({ specifier, line });
      else result.assets.push({ specifier, line, start: node.start, end: node.end });
    }
  });
}

/** The name of what is called, be it a global or one of `window`, `self` and the like. */
function calledName({ callee }: SyntaxNode): string {
  const called = callee as SyntaxNode;
  return nameOf(called.type === 'MemberExpression' ? called.property : called) ?? '';
}

/** Places outside of functions where a module waits for something that isn't an import. */
function waitsAtStart(program: SyntaxNode, source: SourceText): { line: number }[] {
  const found: { line: number }[] = [];
  walk(program, (node, above) => {
    const waits = node.type === 'AwaitExpression' || (node.type === 'ForOfStatement' && node.await === true);
    const ofImport = isNode(node.argument) && node.argument.type === 'ImportExpression';
    if (waits && !ofImport && !above.some(isFunction)) found.push({ line: source.place(node.start).line });
  });
  return found;
}

/** Constant beginning and end of a computed address with one gap; null without a folder to look in. */
function globOf(node: unknown): { prefix: string; suffix: string } | null {
  if (!isNode(node) || node.type !== 'TemplateLiteral' || (node.expressions as unknown[]).length !== 1) return null;
  const [before, after] = (node.quasis as { value: { cooked: string } }[]).map((q) => q.value.cooked);
  return /^\.{1,2}\/.*\//.test(before) || /^\.{1,2}\/$/.test(before) ? { prefix: before, suffix: after } : null;
}

/** What the code around a deferred import tells about when it runs. */
function contextOf(node: SyntaxNode, above: readonly SyntaxNode[]): DeferredContext {
  const functions = above.filter(isFunction);
  if (functions.length === 0) return 'module';
  if (above.some((n, i) => isHandler(n, above[i + 1]))) return 'handler';
  const nearest = functions[functions.length - 1];
  const parent = above[above.indexOf(nearest) - 1];
  const wraps = parent?.type === 'CallExpression' && (parent.arguments as unknown[]).includes(nearest);
  const returns =
    nearest.body === node ||
    (isNode(nearest.body) && nearest.body.start <= node.start && nearest.type === 'ArrowFunctionExpression');
  return wraps && returns && functions.length === 1 ? 'wrapper' : 'function';
}

function isHandler(node: SyntaxNode, child: SyntaxNode | undefined): boolean {
  const named = (key: unknown) => /^(on|handle)[A-Z]/.test(nameOf(key) ?? '');
  if (node.type === 'JSXAttribute') return named(node.name);
  if (!child || !isFunction(child)) return false;
  if (node.type === 'VariableDeclarator') return named(node.id);
  return (node.type === 'Property' || node.type === 'ObjectProperty') && named(node.key);
}
