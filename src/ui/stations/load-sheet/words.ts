import type { MomentKind, SheetCell, SheetColumn, SheetRow } from '../../../core/load-sheet/sheet.ts';
import { size } from '../../parts/format.ts';

export const MOMENTS: Record<MomentKind, string> = {
  landing: 'landing',
  quiet: 'later',
  scroll: 'scroll',
  approach: 'hover',
  action: 'action',
  condition: 'condition',
  move: 'move to',
};

const HOW: Record<SheetCell['role'], string> = {
  needed: 'needed: it travels, and the moment can’t happen without it',
  hinted: 'needed, and asked for early by a hint',
  'on demand': 'asked for by this moment',
  'in case': 'prefetched in case it is needed later',
  wasted: 'fetched, and not used by this moment',
  here: 'already here',
  ready: 'already here because it was prefetched; used now',
};

/** A cell in a sentence. */
export function cellWords(row: SheetRow, column: SheetColumn, cell: SheetCell | undefined): string {
  const what = `${column.name}, ${size(column.bytes)}`;
  const when = row.kind === 'landing' ? `landing on ${row.name}` : `${MOMENTS[row.kind]} ${row.name} on ${row.route}`;
  return `${what}; ${when}: ${cell ? HOW[cell.role] : 'not asked for'}`;
}
