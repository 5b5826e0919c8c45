import type { EcmaScriptModule } from 'oxc-parser';
import { topNameOf } from '../data/data-calls.ts';
import { readAsks } from '../data/read-asks.ts';
import type { FoundImport } from '../found-import.ts';
import { type DrawnTree, findComponentUses } from '../parts/component-uses.ts';
import { drawnImages } from '../parts/images.ts';
import { readOwners } from '../parts/owners.ts';
import { mountedBy } from '../parts/shells.ts';
import { collectRoutes } from '../routes/collect.ts';
import { readRuns } from '../runs/read-runs.ts';
import { SourceText } from '../source-text.ts';
import { constantText, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { type AngularScript, angularScript, type ResourceReader } from '../templates/angular.ts';
import { definedElements, MAY_HOLD_MARKUP, markupOfTaggedTemplates } from '../templates/tagged-markup.ts';
import { collectCalls, waitsAtStart } from './calls.ts';
import type { Compiling } from './compiling.ts';
import { asksEnvironment } from './environment.ts';
import { memberNames } from './member-names.ts';
import { parse, parseRecords, parseSparingly } from './parse.ts';
import type { ParsedScript, ScriptExports } from './parsed-script.ts';
import { exportsOf, liveNamesOf, staticImportsOf } from './records.ts';
import { type Language, languageOf, shippedCode, shipsAsWritten, withoutDeadImports } from './shipped-code.ts';
import { syncUses } from './sync-uses.ts';

/**
 * What only a tree with types tells: decorators, and fields that a constructor declares. Others are read from one without, which is a third
 * smaller, and takes as much less time to make and to go through. Blanks are looked for within one line, so that many empty ones cost no more.
 */
const SAYS_TYPES =
  /(?:^|[(,;{}]|\bexport|\bdefault)[^\S\n\r\u2028\u2029]*@[A-Za-z_$]|\bconstructor\s*\(\s*(?:private|protected|public|readonly|override)\b|,\s*(?:private|protected|public|readonly)\s/m;
/** One of these is in all of that; most texts have none. */
const MAY_SAY_TYPES = /@|private|protected|public|readonly|override/;

const NO_EXPORTS: ScriptExports = { named: [], stars: [], own: [] };

export interface ParseOptions extends Compiling {
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
  const { usedElsewhere = false } = options;
  const lang = languageOf(path);
  const own = !path.includes('node_modules/');
  // Few trees of packages are asked for, and all of the app's.
  const parseAs = own ? parse : parseSparingly;
  const parsed = parseAs(path, text, {
    lang,
    astType: MAY_SAY_TYPES.test(text) && SAYS_TYPES.test(text) ? 'ts' : 'js',
  });
  const source = new SourceText(text);
  const broken = parsed.errors.find((e) => e.severity === 'Error');
  if (broken) {
    const at = broken.labels[0]?.start ?? 0;
    const error = { line: source.place(at).line, message: broken.message };
    return { ...emptyScript(text), error };
  }
  const { program } = parsed;
  const describes = own && options.resource && /@Component\s*\(/.test(text);
  const angular = describes ? angularScript(program(), source, options.resource!) : null;
  const compiled = options.compiled ?? angular?.code ?? null;
  const plain = compiled === null && shipsAsWritten(path, text);
  const { code, refused } = plain
    ? { code: text, refused: null }
    : shippedCode(path, compiled ?? text, lang, options, usedElsewhere && compiled === null);
  const live = plain ? parsed.module : parseRecords('out.js', code).module;
  const result = emptyScript(code);
  if (refused !== null)
    result.told.push({ line: 1, message: `its compiler refuses it: ${refused}. What it weighs is an estimate` });
  const liveNames = liveNamesOf(live);
  result.imports = staticImportsOf(parsed.module, liveNames, source);
  const isWhole = !usedElsewhere || compiled !== null;
  if (isWhole) result.stated = new Set(liveNames.keys());
  if (isWhole && !options.drawn && NAMESPACE.test(text)) takeMembers(parsed.module, program(), result.imports);
  result.commonJs = !parsed.module.hasModuleSyntax && /\b(require|exports|module)\b/.test(text);
  if (live.hasModuleSyntax && /\bawait\b/.test(text)) result.waits = waitsAtStart(program(), source);
  if (/import\s*\(|import\.meta\.glob|require\.context|require\s*\(|new\s+URL\s*\(|\?(shared)?worker\b/.test(text))
    collectCalls(program(), source, result);
  // Routes, elements and parts are those of the app; packages are not the app's to change.
  if (own) noteOwn(program(), source, text, options, angular, parsed.module, lang, result);
  if (asksEnvironment(text) && /\brequire\b|\bimport\s*\(/.test(text))
    result.imports = withoutDeadImports(result.code, result.imports);
  result.exports = exportsOf(live);
  result.imports.sort((a, b) => a.start - b.start);
  return result;
}

const NAMESPACE = /\bimport\s*\*\s*as\b|,\s*\*\s*as\b/;

/** Gives imports of a whole module (`import * as kit`) the names of which the script takes its members, where that is all it does with it. */
function takeMembers(module: EcmaScriptModule, program: SyntaxNode, imports: FoundImport[]): void {
  for (const { start, end, entries } of module.staticImports) {
    const whole = entries.find((e) => e.importName.kind === 'NamespaceObject');
    const found = imports.find((i) => i.start === start && i.end === end && i.names.includes('*'));
    const members = whole && found && memberNames(program, whole.localName.value);
    if (members && members.length > 0)
      found.names = [...new Set([...found.names, ...members])].filter((n) => n !== '*');
  }
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
  lang: Language,
  result: ParsedScript,
): void {
  const { drawn } = options;
  if (angular) noteAngular(angular, module, program, result);
  result.asks = readAsks(program, source, options.told);
  if (MAY_MOUNT.test(text)) result.mounts = mountedBy(program);
  if (/customElement/.test(text)) result.elements.push(...definedElements(program));
  noteUses(result.imports, program, source);
  const templates = [drawn, ...(angular?.components ?? []).map((c) => c.template?.root)].filter((t) => t != null);
  const roots = [program, ...templates];
  if (templates.length > 0 || MAY_SAY_ROUTES.test(text)) result.routes = collectRoutes(program, source, templates);
  result.runs = readRuns(program, roots, text);
  if (/<img\b/.test(text)) result.images = roots.flatMap((root) => drawnImages(program, root, source));
  // Without markup syntax `<` only compares, or begins a type.
  Object.assign(result, drawnBy(program, source, text, options, angular, lang !== 'ts'));
  const names = namesAsked(result);
  if (names.size > 0) result.owners = readOwners(program, names);
}

/** Top-level names under which something is drawn or asked for. */
function namesAsked({ uses, images, asks }: ParsedScript): Set<string> {
  const drawing = [...uses, ...images].flatMap(({ under }) => under ?? []);
  return new Set([...drawing, ...[...(asks?.functions.keys() ?? [])].map(topNameOf)]);
}

/** Components that a script and its templates draw. */
function drawnBy(
  program: SyntaxNode,
  source: SourceText,
  text: string,
  { drawn, bindings }: ParseOptions,
  angular: AngularScript | null,
  mayHoldElements: boolean,
): Pick<ParsedScript, 'uses' | 'innerActs'> {
  const trees: DrawnTree[] = [{ root: program, source }];
  if (drawn) trees.push({ root: drawn, source });
  for (const { template } of angular?.components ?? []) if (template) trees.push(template);
  const tagged = MAY_HOLD_MARKUP.test(text);
  if (tagged) markupOfTaggedTemplates(program, text);
  const marked = mayHoldElements && /<[A-Za-z]/.test(text);
  if (trees.length === 1 && !tagged && !marked && !text.includes('createElement')) return { uses: [], innerActs: {} };
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

/** Notes of static imports whether the module needs them while it starts. */
function noteUses(imports: FoundImport[], program: SyntaxNode, source: SourceText): void {
  if (imports.length === 0) return;
  const needed = syncUses(program, source);
  for (const item of imports) {
    if (item.kind !== 'static' || item.start === item.end) continue;
    const sync = needed.get(item.specifier);
    if (!sync) continue;
    item.sync = { reason: sync.reason, line: sync.line };
    if (sync.passesOn) item.passesOn = true;
    if (sync.component !== undefined) item.component = sync.component;
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
    innerActs: {},
    owners: null,
    mounts: [],
    asks: null,
    elements: [],
    later: null,
    told: [],
    images: [],
    runs: null,
    exports: NO_EXPORTS,
    assets: [],
    globs: [],
    fileGlobs: [],
    resources: [],
    commonJs: false,
    code,
    stated: new Set(),
    error: null,
  };
}
