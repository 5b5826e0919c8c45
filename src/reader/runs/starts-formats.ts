import { parse } from '../script/parse.ts';
import { isFunction, isNode, nameOf, walk } from '../syntax.ts';

/** Whether a script makes what formats numbers, dates or texts of a language (`Intl`, ECMA-402) as it runs, and not only in functions. */
export function startsFormats(text: string): boolean {
  if (!text.includes('Intl.')) return false;
  let starts = false;
  walk(parse('out.js', text).program(), (node, above) => {
    if (node.type !== 'NewExpression' && node.type !== 'CallExpression') return;
    const callee = node.callee;
    if (!isNode(callee) || callee.type !== 'MemberExpression' || nameOf(callee.object) !== 'Intl') return;
    if (!/^[A-Z]/.test(nameOf(callee.property) ?? '')) return;
    const waits = above.some((n) => isFunction(n) || (n.type === 'PropertyDefinition' && n.static !== true));
    starts ||= !waits;
  });
  return starts;
}
