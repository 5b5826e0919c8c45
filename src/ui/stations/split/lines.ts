import type { ImportRow, Outline, SplitRow } from '../../../core/outline/outline.ts';

/** A line of the Split list. */
export type Line =
  | { kind: 'heading'; id: string; title: string; note: string }
  | { kind: 'split'; id: string; row: SplitRow }
  | { kind: 'import'; id: string; row: ImportRow };

export interface ListFilter {
  text: string;
  /** Also imports between modules of one package. */
  inside: boolean;
}

/** Lines of the list: split points first, then imports by what detaching them would take out of the start. */
export function linesOf(outline: Outline, { text, inside }: ListFilter): Line[] {
  const wanted = text.trim().toLowerCase();
  const fits = (...names: string[]) => wanted === '' || names.some((n) => n.toLowerCase().includes(wanted));
  const splits = outline.splits
    .filter((s) => fits(s.target, s.name, s.part?.name ?? ''))
    .sort((a, b) => rankOf(a) - rankOf(b) || b.group.compressed - a.group.compressed);
  const imports = outline.imports.filter(
    (i) => (inside || !i.inside) && fits(i.from, i.to, i.name, i.part?.name ?? ''),
  );
  const carrying = imports.filter((i) => i.carried.minified > 0);
  const held = imports.filter((i) => i.carried.minified === 0);
  const lines: Line[] = [];
  const section = (id: string, title: string, note: string, items: Line[]) => {
    if (items.length > 0) lines.push({ kind: 'heading', id, title, note }, ...items);
  };
  section(
    'h-splits',
    'Deferred already',
    'split points that this route can ask for',
    splits.map((row) => ({ kind: 'split', id: `s ${row.key}`, row })),
  );
  section('h-imports', 'In the start', 'by what leaves it if this import is detached', carrying.map(importLine));
  section(
    'h-held',
    'In the start, held by others',
    'detaching this import alone takes nothing out',
    held.map(importLine),
  );
  return lines;
}

function importLine(row: ImportRow): Line {
  return { kind: 'import', id: `i ${row.key}`, row };
}

/** What this landing fetches comes first, the route's own chain last. */
function rankOf(split: SplitRow): number {
  return split.inChain ? 2 : split.onLanding ? 0 : 1;
}
