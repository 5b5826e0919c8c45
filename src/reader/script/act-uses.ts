import { isFunction, type SyntaxNode, walk } from '../syntax.ts';
import { attributeOf, handedTo, ownName } from './handed-off.ts';
import { importedBindings } from './imported-bindings.ts';

/** Handlers of what happens by itself, soon after something is drawn. */
const BY_ITSELF = /^on(Load|Loaded|Ready|Mount|Mounted|Init|Error)/;

/**
 * Specifiers of imports that a module uses in handlers of what people do, and nowhere else: functions given to an
 * `on…` attribute or to `addEventListener`, written there or named (once) in the same file.
 */
export function actUses(program: SyntaxNode): Set<string> {
  const bindings = importedBindings(program);
  if (bindings.size === 0) return new Set();
  const handlers = namedHandlers(program);
  const used = new Map<string, boolean>();
  walk(program, (node, above) => {
    if (node.type !== 'Identifier' && node.type !== 'JSXIdentifier') return;
    const specifier = bindings.get(node.name as string);
    if (specifier === undefined || above.some((n) => n.type === 'ImportDeclaration' || /^TS/.test(n.type))) return;
    const acted = above.some((fn, at) => {
      if (!isFunction(fn)) return false;
      const name = ownName(fn, above[at - 1]);
      return isHandler(fn, above, at) || (name !== null && handlers.has(name));
    });
    used.set(specifier, acted && (used.get(specifier) ?? true));
  });
  return new Set([...used].flatMap(([specifier, onlyThere]) => (onlyThere ? [specifier] : [])));
}

/** Names that stand for handlers wherever they are used, and are bound once. */
function namedHandlers(program: SyntaxNode): Set<string> {
  const bound = new Map<string, number>();
  walk(program, (node, above) => {
    const name = isFunction(node) ? ownName(node, above.at(-1)) : null;
    if (name !== null) bound.set(name, (bound.get(name) ?? 0) + 1);
  });
  const uses = new Map<string, boolean>();
  walk(program, (node, above) => {
    if (node.type !== 'Identifier' || bound.get(node.name as string) !== 1) return;
    const parent = above.at(-1);
    const binds =
      (parent?.type === 'VariableDeclarator' || parent?.type === 'FunctionDeclaration') && parent.id === node;
    if (binds) return;
    const name = node.name as string;
    uses.set(name, isHandler(node, above, above.length) && (uses.get(name) ?? true));
  });
  return new Set([...uses].flatMap(([name, everywhere]) => (everywhere ? [name] : [])));
}

function isHandler(node: SyntaxNode, above: readonly SyntaxNode[], at: number): boolean {
  const attribute = attributeOf(above, at)?.name ?? '';
  if (/^on[A-Z]/.test(attribute)) return !BY_ITSELF.test(attribute);
  return handedTo(node, above, at) === 'addEventListener';
}
