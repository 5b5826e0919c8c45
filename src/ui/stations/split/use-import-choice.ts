'use client';

import { useMemo, useState } from 'react';
import type { ImportRow, Outline } from '../../../core/outline/outline.ts';
import type { Decision } from '../../../core/plan/types.ts';
import { counted } from '../../../core/text/counted.ts';
import { withTurned } from '../../parts/marks.ts';
import { chosenChunk } from '../../state/selection.ts';
import type { Selection } from '../../state/workbench/types.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { groupDecisions, type Line, type ListFilter, linesOf } from './lines.ts';
import type { ChoosableLine } from './split-list.tsx';

const NONE: ReadonlySet<string> = new Set();

export type Filter = Omit<ListFilter, 'within'>;

/** Several imports that are looked at together: those that were marked, or those of a group. */
export interface ManyChosen {
  rows: ImportRow[];
  marked: boolean;
  title: string;
  /** Compressed bytes of the modules that they lead to, each once. */
  own: number;
  decisions: Decision[];
  /** What detaching them is called in the list of steps. */
  words: string;
}

export interface ImportChoice {
  lines: Line[];
  filter: Filter;
  setFilter: (filter: Filter) => void;
  chosen: ChoosableLine | undefined;
  marks: ReadonlySet<string>;
  many: ManyChosen | null;
  pick: (line: ChoosableLine) => void;
  /** Takes imports, by their keys, to those chosen together, or out of them. */
  mark: (keys: readonly string[]) => void;
  fold: (line: ChoosableLine, open: boolean) => void;
  /** Nothing is chosen together any more. */
  clear: () => void;
}

/** What is listed, chosen and marked of an outline; single lines are chosen everywhere, groups and marks only here. */
export function useImportChoice(outline: Outline | null, within: string | null): ImportChoice {
  const selection = useWorkbench((s) => s.selection);
  const choose = useWorkbench((s) => s.choose);
  const [filter, setFilter] = useState<Filter>({ text: '', inside: false, by: 'weight', open: NONE });
  const [group, setGroup] = useState<string | null>(null);
  const [marks, setMarks] = useState(NONE);
  const lines = useMemo(() => (outline ? linesOf(outline, { ...filter, within }) : []), [outline, filter, within]);
  const chosen = lines.find((line): line is ChoosableLine => isChosen(line, selection, group));
  const marked = outline?.imports.filter((i) => marks.has(i.key)) ?? [];
  return {
    lines,
    filter,
    setFilter,
    chosen,
    marks,
    many: manyOf(marked, chosen),
    pick(line) {
      setGroup(line.kind === 'group' ? line.id : null);
      if (line.kind === 'group') choose({ selection: null });
      else if (line.kind === 'import') choose({ selection: { kind: 'import', key: line.row.key } });
      else choose({ selection: { kind: 'split point', module: line.row.key } });
    },
    mark: (keys) => keys.length > 0 && setMarks(withTurned(marks, keys)),
    fold(line, open) {
      if (line.kind !== 'group') return;
      const next = new Set(filter.open);
      if (open) next.add(line.id);
      else next.delete(line.id);
      setFilter({ ...filter, open: next });
    },
    clear() {
      setMarks(NONE);
      setGroup(null);
    },
  };
}

function isChosen(line: Line, selection: Selection, group: string | null): boolean {
  switch (line.kind) {
    case 'heading':
      return false;
    case 'group':
      return selection === null && line.id === group;
    case 'import':
      return selection?.kind === 'import' && line.row.key === selection.key;
    case 'split': {
      const chunk = chosenChunk(selection);
      if (selection?.kind === 'split point' && line.row.key === selection.module) return true;
      return chunk !== null && line.row.chunks.includes(chunk);
    }
  }
}

function manyOf(marked: ImportRow[], chosen: ChoosableLine | undefined): ManyChosen | null {
  if (marked.length > 0)
    return {
      rows: marked,
      marked: true,
      title: `${counted(marked.length, 'import')} chosen`,
      own: ownOf(marked),
      decisions: marked.map((i) => ({ kind: 'detach', import: i.key })),
      words: `detach ${counted(marked.length, 'import')}`,
    };
  if (chosen?.kind !== 'group') return null;
  return {
    rows: chosen.rows,
    marked: false,
    title: chosen.title,
    own: chosen.own.compressed,
    decisions: groupDecisions(chosen),
    words: `detach what leads into ${chosen.title}`,
  };
}

function ownOf(rows: ImportRow[]): number {
  return [...new Map(rows.map((r) => [r.to, r.own.compressed])).values()].reduce((a, b) => a + b, 0);
}
