import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/**
 * local name → specifier: for imports, for names that stand for a deferred import (`lazy(() => import('./map'))`, or what one gives
 * once it is there), and for the components that a description registers under a name.
 */
export function importedBindings(program: SyntaxNode): Map<string, string> {
  const bindings = new Map<string, string>();
  for (const statement of program.body as SyntaxNode[]) {
    if (statement.type === 'ImportDeclaration') {
      const specifier = constantText(statement.source);
      for (const item of statement.specifiers as SyntaxNode[]) {
        const local = nameOf(item.local);
        if (local && specifier) bindings.set(local, specifier);
      }
    } else if (statement.type === 'VariableDeclaration') {
      for (const declarator of statement.declarations as SyntaxNode[]) {
        const local = nameOf(declarator.id);
        const init = declarator.init;
        const specifier = isNode(init) && init.type === 'CallExpression' ? deferredIn(init) : null;
        if (local && specifier) bindings.set(local, specifier);
      }
    }
  }
  return bindings;
}

/** local name → the name that it has in the module it is imported from; `*` for all of them. */
export function importedNames(program: SyntaxNode): Map<string, string> {
  const names = new Map<string, string>();
  for (const statement of program.body as SyntaxNode[]) {
    if (statement.type !== 'ImportDeclaration') continue;
    for (const item of statement.specifiers as SyntaxNode[]) {
      const local = nameOf(item.local);
      const isDefault = item.type === 'ImportDefaultSpecifier';
      if (local) names.set(local, isDefault ? 'default' : (nameOf(item.imported) ?? '*'));
    }
  }
  return names;
}

/** Names that get a component once a deferred import gave it: `Map = (await import('./map')).default`, `import('./map').then((m) => setMap(m.Map))`. */
export function laterBindings(program: SyntaxNode): Map<string, string> {
  const bindings = new Map<string, string>();
  const setters = new Map<string, string>();
  walk(program, (node) => {
    if (node.type !== 'VariableDeclarator' || (node.id as SyntaxNode).type !== 'ArrayPattern') return;
    const [state, setter] = ((node.id as SyntaxNode).elements as unknown[]).map(nameOf);
    if (state && setter) setters.set(setter, state);
  });
  walk(program, (node, above) => {
    if (node.type !== 'ImportExpression') return;
    const specifier = constantText(node.source);
    if (specifier === null) return;
    const note = (name: string | null | undefined) => {
      if (name && !bindings.has(name)) bindings.set(name, specifier);
    };
    // From inside out, as far as the function that imports.
    for (let i = above.length - 1; i >= 0 && !isFunction(above[i]); i--) {
      const at = above[i];
      if (at.type === 'AssignmentExpression') note(targetOf(at.left));
      else if (at.type === 'VariableDeclarator' && (at.id as SyntaxNode).type === 'ObjectPattern')
        for (const p of (at.id as SyntaxNode).properties as SyntaxNode[]) note(nameOf(p.value));
      else if (at.type === 'CallExpression') {
        note(setters.get(nameOf(at.callee) ?? ''));
        for (const then of at.arguments as SyntaxNode[])
          if (isFunction(then)) for (const name of givenIn(then, setters)) note(name);
      }
    }
  });
  return bindings;
}

/** Names that a function gives a value: by assignment, or by a setter. */
function givenIn(fn: SyntaxNode, setters: ReadonlyMap<string, string>): string[] {
  const names: string[] = [];
  walk(fn, (node) => {
    const name =
      node.type === 'AssignmentExpression'
        ? targetOf(node.left)
        : node.type === 'CallExpression'
          ? (setters.get(nameOf(node.callee) ?? '') ?? null)
          : null;
    if (name !== null) names.push(name);
  });
  return names;
}

function targetOf(left: unknown): string | null {
  if (!isNode(left)) return null;
  if (left.type !== 'MemberExpression') return nameOf(left);
  const ofThis = (left.object as SyntaxNode).type === 'ThisExpression';
  return ofThis ? nameOf(left.property) : nameOf(left.property) === 'value' ? nameOf(left.object) : null;
}

/** Components that a description registers: `components: { Chart, 'tar-list': TarList, Map: defineAsyncComponent(() => import('./map')) }`. */
export function registeredComponents(program: SyntaxNode, bindings: ReadonlyMap<string, string>): Map<string, string> {
  const found = new Map<string, string>();
  walk(program, (node) => {
    if (node.type !== 'Property' || nameOf(node.key) !== 'components' || !isNode(node.value)) return;
    if (node.value.type !== 'ObjectExpression') return;
    for (const { key, value } of node.value.properties as SyntaxNode[]) {
      const name = nameOf(key);
      const specifier = isNode(value) ? (bindings.get(nameOf(value) ?? '') ?? deferredIn(value)) : null;
      if (name !== null && specifier) found.set(name, specifier);
    }
  });
  return found;
}

function deferredIn(value: SyntaxNode): string | null {
  let found: string | null = null;
  walk(value, (node) => {
    if (node.type === 'ImportExpression') found ??= constantText(node.source);
  });
  return found;
}
