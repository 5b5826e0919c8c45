import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';

/**
 * A snapshot in which an import of a style sheet, named by its key, is made in another module instead, after the imports
 * that this one has; it merely goes where that module has it already. Gives the reason in words where that can't be.
 */
export function withMoved(snapshot: Snapshot, key: string, to: string): Snapshot | string {
  const { importAt, moduleAt } = graphIndex(snapshot);
  const at = importAt.get(key);
  const target = moduleAt.get(to);
  if (at === undefined) return `no import ${key} in this snapshot`;
  if (target === undefined) return `no module ${to} in this snapshot`;
  const item = snapshot.imports[at];
  const sheet = snapshot.modules[item.to];
  if (item.kind !== 'static' || sheet.kind !== 'style' || snapshot.modules[item.from].kind !== 'script')
    return `${key} is no import of a style sheet by a script`;
  if (snapshot.modules[target].kind !== 'script') return `${to} is no script`;
  const others = snapshot.imports.filter((_, i) => i !== at);
  const own = others.filter((i) => i.from === target);
  if (own.some((i) => i.to === item.to && i.kind === 'static')) return { ...snapshot, imports: others };
  const specifier = relativeAddress(to, sheet.path);
  const ordinal = own.filter((i) => i.specifier === specifier).length;
  const last = others.findLastIndex((i) => i.from === target);
  const imports = others.toSpliced(last < 0 ? others.length : last + 1, 0, {
    ...item,
    ...{ from: target, specifier, ordinal, line: 1, column: 1, start: 0, end: 0 },
  });
  return { ...snapshot, imports };
}

/** How a module names another file of the folder, as in `../crew/crew.css`. */
export function relativeAddress(from: string, to: string): string {
  const here = from.split('/').slice(0, -1);
  const there = to.split('/');
  let same = 0;
  while (same < here.length && same < there.length - 1 && here[same] === there[same]) same++;
  const up = here.slice(same).map(() => '..');
  return [...(up.length > 0 ? up : ['.']), ...there.slice(same)].join('/');
}
