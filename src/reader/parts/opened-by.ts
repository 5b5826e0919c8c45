import { constantText, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import type { DrawnWhen } from './drawn-when.ts';
import { wordsIn } from './words.ts';

/** What a content stands for: `Dialog` of `DialogContent` and of `Dialog.Content`; null for any other element. */
const CONTENT = /^(\w{0,60}?)(Content|Panel|Popup|Sheet)$/;
const TRIGGER = /^(\w{0,60}?)(Trigger|Tab|Opener|Activator)$/;

/**
 * What opens a content that its library keeps closed by itself: the trigger beside it, in the words on that (`<DialogTrigger>`,
 * `<DialogContent>`, or `Dialog.Trigger` and `Dialog.Content`). Of tabs it is the trigger with the same value; the one that shows first is drawn. Null
 * where there is no trigger.
 */
export function openedBy(path: readonly SyntaxNode[], at: number): DrawnWhen | null {
  const content = path[at];
  const [kind, family] = content.type === 'JSXElement' ? familyOf(content, CONTENT) : [null, ''];
  if (kind === null) return null;
  const value = attribute(content, 'value');
  for (let i = at - 1; i >= 0; i--) {
    if (path[i].type !== 'JSXElement') continue;
    const triggers = triggersIn(path[i], family);
    if (triggers.length === 0) continue;
    const same = value === null ? triggers[0] : triggers.find((t) => attribute(t, 'value') === value);
    if (!same) continue;
    if (value !== null && path.slice(0, i + 1).some((n) => startsWith(n, value))) return { kind: 'drawn' };
    const opensItself = path.slice(0, i + 1).some((n) => hasAttribute(n, 'defaultOpen'));
    const words = wordsIn(same);
    return opensItself ? { kind: 'drawn' } : { kind: 'action', action: words === '' ? `click in ${family}` : words };
  }
  return null;
}

function familyOf(element: SyntaxNode, pattern: RegExp): [kind: string | null, family: string] {
  const { name } = element.openingElement as SyntaxNode;
  if (!isNode(name)) return [null, ''];
  const whole =
    name.type === 'JSXMemberExpression' ? `${nameOf(name.object) ?? ''}${nameOf(name.property) ?? ''}` : nameOf(name);
  const match = pattern.exec(whole ?? '');
  return match && match[1] !== '' ? [match[2], match[1]] : [null, ''];
}

/** Triggers inside of elements, by their families: many contents may stand in one element. */
const triggersBelow = new WeakMap<SyntaxNode, Map<string, SyntaxNode[]>>();

function triggersIn(root: SyntaxNode, family: string): SyntaxNode[] {
  let families = triggersBelow.get(root);
  if (!families) {
    const found = new Map<string, SyntaxNode[]>();
    walk(root, (node) => {
      const [kind, own] = node.type === 'JSXElement' ? familyOf(node, TRIGGER) : [null, ''];
      if (kind !== null) found.set(own, [...(found.get(own) ?? []), node]);
    });
    families = found;
    triggersBelow.set(root, families);
  }
  return families.get(family) ?? [];
}

/** Whether an element around begins with a value: what it shows first. */
function startsWith(element: SyntaxNode, value: string): boolean {
  return (
    element.type === 'JSXElement' &&
    (attribute(element, 'defaultValue') === value || attribute(element, 'default-value') === value)
  );
}

function attributesOf(element: SyntaxNode): SyntaxNode[] {
  return element.type === 'JSXElement' ? ((element.openingElement as SyntaxNode).attributes as SyntaxNode[]) : [];
}

function attribute(element: SyntaxNode, name: string): string | null {
  const value = attributesOf(element).find((a) => nameOf(a.name) === name)?.value;
  return constantText(isNode(value) && value.type === 'JSXExpressionContainer' ? value.expression : value);
}

function hasAttribute(element: SyntaxNode, name: string): boolean {
  return attributesOf(element).some((a) => nameOf(a.name) === name);
}
