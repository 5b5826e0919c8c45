import { isDependency, ownName } from '../reader/script/handed-off.ts';
import { isFunction, isNode, nameOf, type SyntaxNode } from '../reader/syntax.ts';
import { type Reference, type ScriptFile, withoutTypes } from './script-file.ts';
import { type Waiter, waiterOf } from './waits.ts';

/** A place in a function that can wait, through which something is reached; `through`: functions of the file between the two. */
export interface EntryPoint {
  place: Waiter;
  reference: Reference;
}

/**
 * All places of a file through which a use of an imported name is reached, each in a function that can wait for it: the use itself
 * stands there, or in functions, classes and objects that are only used from there. In words, the place at which that isn't so.
 */
export function entryPoints(file: ScriptFile, local: string, use: Reference): EntryPoint[] | { reason: string } {
  const found: EntryPoint[] = [];
  const seen = new Set<SyntaxNode>();
  const open = [use];
  for (let next = open.pop(); next; next = open.pop()) {
    const place = waiterOf(file, next.above);
    if (place) {
      found.push({ place, reference: next });
      continue;
    }
    const owner = ownerOf(next);
    if (owner === null) return { reason: whyNot(file, local, next) };
    if (seen.has(owner.declared)) continue;
    seen.add(owner.declared);
    if (isExported(file, owner)) return { reason: whyNot(file, local, next) };
    const uses = file.references(owner.name, 1);
    if (!uses) return { reason: `the name ${owner.name} means something else in a part of the file` };
    const drawn = uses.find((u) => /^JSX/.test(u.above.at(-1)!.type) && /^[A-Z]/.test(owner.name));
    if (drawn) return { reason: whyNot(file, local, next) };
    open.push(...withoutTypes(uses).filter((u) => !u.above.includes(owner.declared) && !isDependency(u.above)));
  }
  return found;
}

interface Owner {
  name: string;
  /** What the name stands for. */
  declared: SyntaxNode;
}

/** The function, class or object with a name in which something stands that only runs once that name is used. */
function ownerOf({ above }: Reference): Owner | null {
  let inFunction = false;
  for (let at = above.length - 1; at >= 0; at--) {
    const node = above[at];
    const name = isFunction(node) ? ownName(node, above, at) : null;
    if (name !== null) return { name, declared: node };
    if (isFunction(node)) inFunction = true;
    else if (node.type === 'PropertyDefinition' && node.static !== true) inFunction = true;
    else if (/^(?:Static|Decorator)/.test(node.type)) inFunction = false;
    else if (node.type === 'ClassDeclaration' && inFunction && isNode(node.id))
      return { name: nameOf(node.id)!, declared: node };
    else if (node.type === 'VariableDeclarator' && inFunction && isNode(node.id)) {
      const held = isHeld(above.slice(at + 1)) ? nameOf(node.id) : null;
      return held === null ? null : { name: held, declared: node };
    } else if (node.type === 'CallExpression' && !above.slice(0, at).some(isFunction)) return null;
  }
  return null;
}

/** Whether a function stands in nothing but objects and lists, up to the variable that holds these. */
function isHeld(inside: readonly SyntaxNode[]): boolean {
  const end = inside.findIndex(isFunction);
  return inside
    .slice(0, end)
    .every((n) =>
      /^(?:ObjectExpression|ArrayExpression|Property|Class\w*|MethodDefinition|PropertyDefinition)$/.test(n.type),
    );
}

/** Whether others may use it whenever they like. */
function isExported(file: ScriptFile, { name, declared }: Owner): boolean {
  return file.body.some((statement) => {
    if (statement.type !== 'ExportNamedDeclaration' && statement.type !== 'ExportDefaultDeclaration') return false;
    const { declaration } = statement;
    const declarators = isNode(declaration) ? ((declaration.declarations as SyntaxNode[] | undefined) ?? []) : [];
    if (declaration === declared || declarators.some((d) => d === declared || d.init === declared)) return true;
    if (isNode(declaration) && nameOf(declaration) === name) return true;
    return ((statement.specifiers as SyntaxNode[] | undefined) ?? []).some((s) => nameOf(s.local) === name);
  });
}

function whyNot(file: ScriptFile, local: string, { node, above }: Reference): string {
  const { line } = file.source.place(node.start);
  if (!above.some(isFunction)) return `line ${line} needs ${nameOf(node) ?? local} while the module starts`;
  const fn = [...above].reverse().find(isFunction)!;
  const name = nameOf(fn.id) ?? 'the function around it';
  return `line ${line} uses ${nameOf(node) ?? local} at once, and ${name} gives its answer to callers that don’t wait`;
}
