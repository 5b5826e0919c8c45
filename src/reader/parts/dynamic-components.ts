import { isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import { lookupOf, type Values } from './values.ts';

/** A component that an element may stand for: `by`: what it is looked up by, and the key under which it is found. */
export interface Possible {
  component: string;
  by: SyntaxNode | null;
  key: string;
  /** What the table says of it besides. */
  texts?: ReadonlyMap<string, string>;
}

/**
 * The components that an element may stand for whose name isn't that of one: a name that was looked up in a table
 * (`const View = VIEWS[at]`), or what `is` says of an element of a template (`<component :is="VIEWS[at]">`).
 */
export function componentAt(element: SyntaxNode, name: string | null, values: Values): Possible[] {
  const { is } = element;
  if (isNode(is)) return possible(is, values);
  const lookup = name === null ? undefined : values.lookups.get(name);
  return lookup ? fromTable(lookup.table, lookup.by, values) : [];
}

function possible(is: SyntaxNode, values: Values): Possible[] {
  if (is.type === 'ConditionalExpression')
    return [is.consequent, is.alternate].flatMap((branch, at) =>
      possible(branch as SyntaxNode, values).map((p) => ({
        ...p,
        by: p.by ?? (is.test as SyntaxNode),
        key: at === 0 ? 'true' : 'false',
      })),
    );
  const lookup = lookupOf(is);
  if (lookup) return fromTable(lookup.table, lookup.by, values);
  const name = nameOf(is);
  if (name === null) return [];
  const named = values.lookups.get(name);
  if (named) return fromTable(named.table, named.by, values);
  const derived = values.derived.get(name);
  if (derived && derived !== is) return possible(derived, values);
  return [{ component: name, by: null, key: '' }];
}

function fromTable(table: string, by: SyntaxNode, { tables, tableTexts }: Values): Possible[] {
  const texts = tableTexts.get(table);
  return [...(tables.get(table) ?? [])].map(([key, component]) => ({ component, by, key, texts: texts?.get(key) }));
}
