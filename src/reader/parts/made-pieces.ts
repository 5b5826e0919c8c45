import { leadToPieces } from '../../core/load/drawn-by-packages.ts';
import { graphIndex } from '../../core/snapshot/graph-index.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { importedBindings } from '../script/imported-bindings.ts';
import { parse } from '../script/parse.ts';
import { Scopes } from '../script/scopes.ts';
import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/**
 * Notes of modules what their functions have packages draw: pieces of interface (`new Chart(canvas)`, `L.map(element)`), in their own code or in functions of
 * other modules that they call for it. What only a handler calls is drawn once somebody acts. `texts`: what ships of each module, by path.
 */
export function addMadePieces(snapshot: Snapshot, texts: Readonly<Record<string, string>>): void {
  const { modules, imports } = snapshot;
  const leads = leadToPieces(snapshot);
  if (leads.size === 0) return;
  const { inStart, incoming } = graphIndex(snapshot);
  const called = new Map<number, ReadonlySet<string>>();
  const specifiersCalled = (m: number) => {
    if (!called.has(m)) called.set(m, calledInFunctions(texts[modules[m].path] ?? ''));
    return called.get(m)!;
  };
  // Makers come behind what they are made of.
  const open = [...leads.keys()];
  const makers = new Set(open);
  const makes = new Map<number, Set<number>>();
  for (const made of open)
    for (let e = inStart[made]; e < inStart[made + 1]; e++) {
      const { from, kind, specifier } = imports[incoming[e]];
      const { package: name, kind: is } = modules[from];
      if (kind !== 'static' || name !== null || is !== 'script' || !specifiersCalled(from).has(specifier)) continue;
      makes.set(from, (makes.get(from) ?? new Set()).add(made));
      if (!makers.has(from)) open.push(from);
      makers.add(from);
    }
  for (const [m, made] of makes) modules[m].makes = [...made].sort((a, b) => a - b);
}

/** Specifiers of static imports of which a function calls or constructs something, other than to answer an act. */
function calledInFunctions(text: string): Set<string> {
  const program = parse('out.js', text).program();
  const bindings = importedBindings(program);
  const scopes = new Scopes();
  const handlers = namedHandlers(program, scopes);
  const found = new Set<string>();
  walk(program, (node, above) => {
    if (node.type !== 'NewExpression' && node.type !== 'CallExpression') return;
    const name = rootOf(node.callee) ?? '';
    const specifier = bindings.get(name);
    if (specifier === undefined || found.has(specifier) || !above.some(isFunction)) return;
    if (scopes.homeOf(name, above) === null && !isInHandler(above, handlers, scopes)) found.add(specifier);
  });
  return found;
}

/** The name that a callee begins with: of `L.map` that is `L`. */
function rootOf(callee: unknown): string | null {
  let at = callee;
  while (isNode(at) && at.type === 'MemberExpression') at = at.object;
  return nameOf(at);
}

const HANDLES = /^on:?[A-Za-z]/;

/** Names, by what declares them. */
type Names = Map<SyntaxNode | null, Set<string>>;

/** Names of functions that are named as what answers an act: `{ onClick: open }`, `button.addEventListener('click', open)`. */
function namedHandlers(program: SyntaxNode, scopes: Scopes): Names {
  const names: Names = new Map();
  walk(program, (node, above) => {
    const handled =
      node.type === 'Property' && HANDLES.test(nameOf(node.key) ?? '')
        ? node.value
        : isListening(node)
          ? (node.arguments as SyntaxNode[])[1]
          : null;
    if (!isNode(handled) || handled.type !== 'Identifier') return;
    const name = handled.name as string;
    const home = scopes.homeOf(name, above);
    names.set(home, (names.get(home) ?? new Set()).add(name));
  });
  return names;
}

/** Whether a place lies in a function that answers an act. */
function isInHandler(above: readonly SyntaxNode[], handlers: Names, scopes: Scopes): boolean {
  const isHandler = (id: unknown, depth: number) => {
    const name = nameOf(id);
    return name !== null && !!handlers.get(scopes.homeOf(name, above.slice(0, depth)))?.has(name);
  };
  return above.some((node, i) => {
    if (!isFunction(node)) return false;
    if (node.type === 'FunctionDeclaration') return isHandler(node.id, i);
    // A function may be handed through others before it gets its name: `const open = useCallback(() => …)`.
    let at = i - 1;
    while (at > 0 && above[at].type === 'CallExpression') at--;
    const around = above[i - 1];
    if (above[at]?.type === 'VariableDeclarator') return isHandler(above[at].id, at);
    return (around?.type === 'Property' && HANDLES.test(nameOf(around.key) ?? '')) || (!!around && isListening(around));
  });
}

function isListening(node: SyntaxNode): boolean {
  if (node.type !== 'CallExpression' || !isNode(node.callee) || node.callee.type !== 'MemberExpression') return false;
  return /^(addEventListener|on)$/.test(nameOf(node.callee.property) ?? '');
}
