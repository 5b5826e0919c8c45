import { handedTo } from '../script/handed-off.ts';
import { importedBindings } from '../script/imported-bindings.ts';
import type { SourceText } from '../source-text.ts';
import { bare, constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { underOf } from './owners.ts';

/** An image that a module draws whenever it is drawn itself. */
export interface DrawnImage {
  /** Its address as written, or the specifier of the import that gives it. */
  source: string;
  imported: boolean;
  /** It waits until it comes near the screen (HTML, `loading=lazy`). */
  lazy: boolean;
  line: number;
  /** The top-level name of the module that it stands under, where there is one. */
  under?: string;
}

/** What decides, repeats or puts off what stands in it. */
const DECIDES = new Set([
  'ConditionalExpression',
  'LogicalExpression',
  'IfStatement',
  'SwitchStatement',
  'ForStatement',
  'ForOfStatement',
]);

/** Methods that call what they are given for each of a list. */
const REPEATS = new Set(['map', 'flatMap', 'from', 'forEach', 'reduce', 'filter']);

/**
 * Images with an address that the code knows (`<img src="/pier.jpg">`, or a file that it imports), as far as nothing decides
 * whether they are drawn. `root`: a script, or a template as parsed markup.
 */
export function drawnImages(program: SyntaxNode, root: SyntaxNode, source: SourceText): DrawnImage[] {
  const imports = importedBindings(program);
  const found: DrawnImage[] = [];
  walk(root, (node, above) => {
    if (node.type !== 'JSXOpeningElement' || nameOf(node.name) !== 'img' || !isPlain(above)) return;
    const attributes = node.attributes as SyntaxNode[];
    const value = (name: string) => attributes.find((a) => nameOf(a.name) === name)?.value;
    const src = value('src');
    if (!isNode(src)) return;
    const given = bare(src);
    const written = constantText(given);
    const specifier = written === null ? imports.get(nameOf(given) ?? '') : undefined;
    if (written === null && specifier === undefined) return;
    const loading = value('loading');
    found.push({
      source: written ?? specifier!,
      imported: written === null,
      lazy: isNode(loading) && constantText(bare(loading)) === 'lazy',
      line: source.place(node.start).line,
      ...(root.type === 'Program' ? underOf(above) : {}),
    });
  });
  return found;
}

/** Whether a place is drawn with its component: under no condition, and in no function that is called for each of a list. */
function isPlain(above: readonly SyntaxNode[]): boolean {
  return above.every((node, at) => {
    if (DECIDES.has(node.type)) return false;
    const call = above[at - 1];
    return !isFunction(node) || call?.type !== 'CallExpression' || !REPEATS.has(handedTo(node, above, at) ?? '');
  });
}
