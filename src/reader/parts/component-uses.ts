import { importedBindings, importedNames, laterBindings, registeredComponents } from '../script/imported-bindings.ts';
import type { SourceText } from '../source-text.ts';
import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { findActions, handed, type SetterCall } from './actions.ts';
import { callSitesOf } from './call-sites.ts';
import { drawnAfter } from './drawn-after.ts';
import type { DrawnWhen } from './drawn-when.ts';
import { componentAt } from './dynamic-components.ts';
import { type AnswerFlows, answerFlows, type ImportedNames, type LineOf, lineIn, type Origin } from './from-answers.ts';
import { innerActs } from './inner-acts.ts';
import { type InnerActs, withSpecifiers } from './inner-marks.ts';
import { isOfRoutes } from './of-routes.ts';
import { underOf } from './owners.ts';
import { repeatsIn } from './repeats.ts';
import { testsOf } from './tests-around.ts';
import { readValues } from './values.ts';
import { type Scope, whenDrawn, whenLookedUp } from './when-drawn.ts';

/** A component that a module draws, and when, as far as the code tells. */
export interface ComponentUse {
  /** As imported; null for an element that is known by its name only. */
  specifier: string | null;
  /** The name of the component in the module that it is imported from. */
  name?: string;
  /** The element's name, which another module gives to its component. */
  element?: string;
  /** The file of the template, where it isn't the module itself. */
  file?: string;
  line: number;
  when: DrawnWhen;
  /** When it is drawn if it doesn’t hide itself by what it is handed: `open={isOpen}` may only change how it looks. Missing where that decides nothing. */
  anyway?: DrawnWhen;
  /** Modules of the components around it in the same module, innermost first. */
  inside: string[];
  /** The top-level name of the module that it stands under, where there is one. */
  under?: string;
  /** What has to be there before it is drawn, where tests and lists around it tell that. */
  after?: Origin;
  /** What its attributes come from, by their names. */
  gives?: { [attribute: string]: Origin };
  /** How often the lists around it draw it, where their lengths are written in the code; missing for once. */
  times?: number;
  /** How many lists of lengths that aren't written are around it. */
  inLists?: number;
}

/** A parsed text of a component: its script, or a template in the form of the same nodes. */
export interface DrawnTree {
  root: SyntaxNode;
  source: SourceText;
  /** The file, where it isn't the module itself. */
  file?: string;
}

/**
 * Finds the imported components that a module draws. One that stands under a condition is tied to what decides it: a
 * state that an event handler sets (the words on the handler's element name the action), being seen, a media query, a call's
 * answer, or who is signed in. Also what people do in the components that it defines. `known`: components that templates may use by other names than those of imports.
 */
export function findComponentUses(
  trees: readonly DrawnTree[],
  known: ReadonlyMap<string, string> = new Map(),
): { uses: ComponentUse[]; innerActs: InnerActs } {
  const [{ root: program }] = trees;
  const imported = importedBindings(program);
  const bindings = new Map([
    ...known,
    ...laterBindings(program),
    ...registeredComponents(program, imported),
    ...imported,
  ]);
  const names = importedNames(program);
  const values = readValues(
    trees.map(({ root, source }) => ({ root, text: source.text })),
    bindings,
  );
  const setters = new Set([...values.states.values()].map((s) => s.setter));
  const roots = trees.map((t) => t.root);
  const components = new Set([...bindings.keys()].filter((name) => /^[A-Z]/.test(name)));
  // What another module gives may be set there: a store, an object of states.
  const elsewhere = [...bindings.keys()].filter((name) => !components.has(name));
  const objects = new Set([...values.given.keys(), ...elsewhere]);
  const actions = findActions(roots, { setters, states: values.states, objects, components });
  const scope: Omit<Scope, 'text'> = { values, actions, callSites: callSitesOf(roots), called: new Map() };
  const shown = handedUses(trees[0], bindings, actions);
  const timesAt = repeatsIn(program);
  const setBy = new Map([...values.states].map(([name, { setter }]) => [setter, name]));
  const flows = answerFlows(trees, setBy, new Set(bindings.keys()), takenFrom(imported, names));
  // The script of a component with a template of its own runs as its setup.
  const calledAfter = new Map<string, Origin>();
  const held = trees.length > 1 ? flows.heldBy(program) : NOTHING;
  const told = (words: string) => withSpecifiers(words, bindings, names);
  const acts = Object.entries(innerActs(roots)).map(([event, words]) => [event, told(words)] as const);
  const uses = [
    ...trees.flatMap((tree) =>
      usesIn(tree, bindings, { ...scope, text: tree.source.text }, { timesAt, flows, held, calledAfter }),
    ),
    ...shown,
  ].map(({ local, ...use }) => {
    const name = names.get(local);
    const when = actToldBy(use.when, told);
    const anyway = use.anyway && { anyway: actToldBy(use.anyway, told) };
    return { ...use, when, ...anyway, ...(name === undefined || name === '*' ? {} : { name }) };
  });
  return { uses, innerActs: Object.fromEntries(acts) };
}

/** When something is drawn, with what is done by other words. */
export function actToldBy<T extends DrawnWhen>(when: T, told: (words: string) => string): T {
  return when.kind === 'action' ? { ...when, action: told(when.action) } : when;
}

/** Components that handlers hand to calls which show them: `onClick={() => dialog.open(EditForm)}`. */
function handedUses(
  { root, source }: DrawnTree,
  bindings: ReadonlyMap<string, string>,
  actions: readonly SetterCall[],
): Drawn[] {
  const words = new Map(
    actions.flatMap((a) => (a.setter.startsWith('@') && a.words !== null ? [[a.setter, a.words]] : [])),
  );
  const uses: Drawn[] = [];
  if (words.size === 0) return uses;
  walk(root, (node, above) => {
    if (node.type !== 'CallExpression') return;
    for (const argument of node.arguments as SyntaxNode[]) {
      const local = argument.type === 'Identifier' ? (argument.name as string) : '';
      const [action, specifier] = [words.get(handed(local)), bindings.get(local)];
      if (action === undefined || specifier === undefined) continue;
      words.delete(handed(local));
      uses.push({
        specifier,
        local,
        line: source.place(node.start).line,
        when: { kind: 'action', action },
        inside: [],
        ...underOf(above),
      });
    }
  });
  return uses;
}
type Drawn = ComponentUse & { local: string };

/** What is known of a module besides when its components are drawn. */
interface Beside {
  timesAt: ReturnType<typeof repeatsIn>;
  flows: AnswerFlows;
  /** What all of it waits for. */
  held: Origin;
  calledAfter: Map<string, Origin>;
}

const NOTHING: Origin = { lines: [], names: [] };
const isNothing = ({ lines, names, selected, imported }: Origin) =>
  lines.length === 0 && names.length === 0 && !selected && !imported;

function usesIn(
  { root, source, file }: DrawnTree,
  bindings: ReadonlyMap<string, string>,
  scope: Scope,
  { timesAt, flows, held, calledAfter }: Beside,
): Drawn[] {
  const uses: Drawn[] = [];
  const line = lineIn(source);
  walk(root, (node, above) => {
    const made = createdElement(node);
    if (made !== null) {
      const when = whenDrawn([...above, node], scope);
      const { line } = source.place(node.start);
      uses.push({ specifier: null, local: made, element: made, line, when, inside: [], ...underOf(above) });
    }
    if (node.type !== 'JSXElement' || isOfRoutes(above)) return;
    const under = root.type === 'Program' ? underOf(above) : {};
    const { times, open } = timesAt(above);
    const place = {
      ...{ line: source.place(node.start).line, ...(file === undefined ? {} : { file }), ...under },
      ...(times === 1 ? {} : { times }),
      ...(open === 0 ? {} : { inLists: open }),
    };
    const inside = above
      .filter((n) => n.type === 'JSXElement')
      .flatMap((n) => bindings.get(tagOf(n) ?? '') ?? [])
      .reverse();
    const path = [...above, node];
    const name = tagOf(node);
    const waiting = () => {
      const own = drawnAfter(path, { ...scope, flows, line, calledAfter });
      const after = { ...own, lines: [...own.lines, ...held.lines], names: [...own.names, ...held.names] };
      return { ...(isNothing(after) ? {} : { after }), ...givenBy(node, flows, line) };
    };
    const specifier = name === null ? undefined : bindings.get(name);
    if (specifier !== undefined)
      uses.push({ specifier, local: name!, ...place, ...whenUsed(path, scope), inside, ...waiting() });
    else if (name !== null && /^[a-z]\w*-[\w-]*$/.test(name))
      uses.push({
        ...{ specifier: null, local: name, element: name, ...place, when: whenDrawn(path, scope), inside },
        ...waiting(),
      });
    for (const possible of componentAt(node, name, scope.values)) {
      const { component, by } = possible;
      const from = bindings.get(component);
      if (from === undefined) continue;
      const around = whenDrawn(path, scope);
      const when = around.kind === 'drawn' && by ? whenLookedUp({ ...possible, by }, scope) : around;
      uses.push({ specifier: from, local: component, ...place, when, inside, ...waiting() });
    }
  });
  return uses;
}

/** When a component is drawn, and when it is if an attribute of its own doesn’t hide it. */
function whenUsed(path: readonly SyntaxNode[], scope: Scope): Pick<ComponentUse, 'when' | 'anyway'> {
  const when = whenDrawn(path, scope);
  const [element] = path.slice(-1);
  if (when.kind === 'drawn' || testsOf(element, undefined).length === 0) return { when };
  return { when, anyway: whenDrawn(path, scope, false) };
}

/** Values of other modules: what begins with a small letter is no component, nor is a context, by the name that it mostly has. */
function takenFrom(imported: ReadonlyMap<string, string>, names: ReadonlyMap<string, string>): ImportedNames {
  const taken = [...imported].flatMap(([local, specifier]) => {
    const name = names.get(local);
    return (/^[A-Z]/.test(local) && !/Context$/.test(local)) || name === undefined || name === '*'
      ? []
      : [[local, { specifier, name }] as const];
  });
  return new Map(taken);
}

/** What the attributes of an element come from, as far as that may be answers. */
function givenBy(element: SyntaxNode, flows: AnswerFlows, line: LineOf): { gives?: ComponentUse['gives'] } {
  const gives: ComponentUse['gives'] = {};
  for (const { name, value } of (element.openingElement as SyntaxNode).attributes as SyntaxNode[]) {
    const is = nameOf(name);
    const expression = isNode(value) && value.type === 'JSXExpressionContainer' ? value.expression : null;
    if (is === null || !isNode(expression) || isFunction(expression) || /^(on[A-Z]|key$|ref$)/.test(is)) continue;
    const origin = flows.of(expression, line);
    if (!isNothing(origin)) gives[is] = origin;
  }
  return Object.keys(gives).length > 0 ? { gives } : {};
}

/** The name of an element; of `Dialog.Content` that of the object. */
export function tagOf(element: SyntaxNode): string | null {
  let name = (element.openingElement as SyntaxNode).name;
  while (isNode(name) && name.type === 'JSXMemberExpression') name = name.object;
  return nameOf(name);
}

/** The name of an element of its own that a script makes: `document.createElement('tide-map')`. */
function createdElement(node: SyntaxNode): string | null {
  if (node.type !== 'CallExpression' || nameOf((node.callee as SyntaxNode).property) !== 'createElement') return null;
  const name = constantText((node.arguments as SyntaxNode[])[0]);
  return name?.includes('-') ? name : null;
}
