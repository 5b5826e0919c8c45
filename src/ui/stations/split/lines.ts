import type { Weight } from '../../../core/chunks/carried.ts';
import type { ImportRow, Outline, SplitRow } from '../../../core/outline/outline.ts';
import type { Decision } from '../../../core/plan/types.ts';
import { shortName } from '../../../core/text/short-name.ts';

/** A line of the Split list. */
export type Line =
  | { kind: 'heading'; id: string; title: string; note: string }
  | { kind: 'split'; id: string; row: SplitRow }
  | { kind: 'import'; id: string; row: ImportRow; within?: true }
  | GroupLine;

/** The imports that lead into one package or folder, folded into a line. */
export interface GroupLine {
  kind: 'group';
  id: string;
  title: string;
  package: string | null;
  rows: ImportRow[];
  /** Of all modules in it that are there, each once. */
  own: Weight;
  open: boolean;
}

export interface ListFilter {
  text: string;
  /** Also imports between modules of one package. */
  inside: boolean;
  by: 'weight' | 'folder';
  /** Ids of the groups that are unfolded. */
  open: ReadonlySet<string>;
  /** The split point whose load group is outlined; null for a route's start. */
  within: string | null;
}

/** Lines of the list: split points first, then imports by what detaching them would take out, or by where they lead. */
export function linesOf(outline: Outline, { text, inside, by, open, within }: ListFilter): Line[] {
  const wanted = text.trim().toLowerCase();
  const fits = (...names: string[]) => wanted === '' || names.some((n) => n.toLowerCase().includes(wanted));
  const splits = outline.splits
    .filter((s) => fits(s.target, s.name, s.part?.name ?? ''))
    .sort((a, b) => rankOf(a) - rankOf(b) || b.group.compressed - a.group.compressed);
  const imports = outline.imports.filter(
    (i) => (inside || !i.inside) && fits(i.from, i.to, i.name, i.part?.name ?? ''),
  );
  const lines: Line[] = [];
  const section = (id: string, title: string, note: string, items: Line[]) => {
    if (items.length > 0) lines.push({ kind: 'heading', id, title, note }, ...items);
  };
  section(
    'h-splits',
    'Deferred already',
    within ? `split points that ${shortName(within)} asks for` : 'split points that this route can ask for',
    splits.map((row) => ({ kind: 'split', id: `s ${row.key}`, row })),
  );
  const where = within ? `In what ${shortName(within)} brings` : 'In the start';
  if (by === 'folder') {
    section(
      'h-folders',
      `${where}, by package and folder`,
      'solid: their self size',
      grouped(imports, outline.imports, open, wanted !== ''),
    );
    return lines;
  }
  const carrying = imports.filter((i) => i.carried.minified > 0);
  const held = imports.filter((i) => i.carried.minified === 0);
  section('h-imports', where, 'by what leaves it if this import is detached', carrying.map(importLine));
  section('h-held', `${where}, held by others`, 'detaching this import alone takes nothing out', held.map(importLine));
  return lines;
}

/** What detaching everything that leads into a package or folder from outside decides. */
export function groupDecisions({ package: name, title, rows }: GroupLine): Decision[] {
  if (name !== null) return [{ kind: 'detach', package: name }];
  return rows.filter((r) => folderOf(r.from) !== title).map((r): Decision => ({ kind: 'detach', import: r.key }));
}

function grouped(imports: ImportRow[], all: ImportRow[], open: ReadonlySet<string>, unfolded: boolean): Line[] {
  const groups = new Map<string, GroupLine>();
  for (const row of imports) {
    const title = placeOf(row);
    const id = `g ${row.package === null ? '/' : ''}${title}`;
    const group = groups.get(id) ?? {
      kind: 'group',
      id,
      title,
      package: row.package,
      rows: [],
      own: { minified: 0, compressed: 0 },
      open: unfolded || open.has(id),
    };
    groups.set(id, group);
    group.rows.push(row);
  }
  // What lies deep inside a package weighs as well, though its imports may be hidden.
  const weighed = new Set<string>();
  for (const row of all) {
    const group = groups.get(`g ${row.package === null ? '/' : ''}${placeOf(row)}`);
    if (!group || weighed.has(row.to)) continue;
    weighed.add(row.to);
    group.own.minified += row.own.minified;
    group.own.compressed += row.own.compressed;
  }
  return [...groups.values()]
    .sort((a, b) => b.own.compressed - a.own.compressed)
    .flatMap((g): Line[] => [
      g,
      ...(g.open ? g.rows.map((row) => ({ ...importLine(row), within: true as const })) : []),
    ]);
}

function placeOf(row: ImportRow): string {
  return row.package ?? folderOf(row.to);
}

function folderOf(path: string): string {
  const at = path.lastIndexOf('/');
  return at < 0 ? '.' : path.slice(0, at);
}

function importLine(row: ImportRow): Extract<Line, { kind: 'import' }> {
  return { kind: 'import', id: `i ${row.key}`, row };
}

/** What this landing fetches comes first, the route's own chain last. */
function rankOf(split: SplitRow): number {
  return split.inChain ? 2 : split.onLanding ? 0 : 1;
}
