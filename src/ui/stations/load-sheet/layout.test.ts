import type { LoadSheet } from '../../../core/load-sheet/sheet.ts';
import { placeColumns, shownRows, type View } from './layout.ts';

const view: View = { sortBy: 'first use', zoom: 1, text: '', onlyChanged: false, folded: new Set() };
const column = (id: string, bytes: number, used: number, firstRow: number) => ({
  id,
  name: id,
  kind: 'script' as const,
  bytes,
  used,
  firstRow,
  holds: [`src/${id}.ts`],
  splitPoints: [],
});
const row = (id: string, kind: 'landing' | 'action', route: string) => ({
  id,
  kind,
  route,
  name: id,
  target: null,
  cells: [],
  bytes: 0,
  start: null,
});
const sheet: LoadSheet = {
  columns: [
    column('late', 500, 1, 3),
    column('big', 9000, 2, 0),
    column('never', 50, 0, -1),
    column('shared', 800, 5, 1),
  ],
  rows: [row('/', 'landing', '/'), row('/ a', 'action', '/'), row('/b', 'landing', '/b')],
};
const order = (more: Partial<View>, changed: string[] = []) =>
  placeColumns(sheet, changed, { ...view, ...more }, 400).map((p) => p.column.id);

describe('the columns of the load sheet', () => {
  it('stand by first use, size or sharing; those never used last', () => {
    expect(order({})).toEqual(['big', 'shared', 'late', 'never']);
    expect(order({ sortBy: 'size' })).toEqual(['big', 'shared', 'late', 'never']);
    expect(order({ sortBy: 'sharing' })).toEqual(['shared', 'big', 'late', 'never']);
  });

  it('fill the space as they weigh, never overlap, and grow with the zoom', () => {
    const placed = placeColumns(sheet, [], view, 400);
    for (const [i, p] of placed.entries()) {
      expect(p.width).toBeGreaterThan(3);
      if (i > 0) expect(p.x).toBeGreaterThanOrEqual(placed[i - 1].x + placed[i - 1].width);
    }
    const last = placed[3];
    expect(last.x + last.width).toBeLessThanOrEqual(400);
    expect(placed[0].width).toBeGreaterThan(placed[1].width);
    expect(placeColumns(sheet, [], { ...view, zoom: 4 }, 400)[0].width).toBeGreaterThan(placed[0].width * 3);
  });

  it('are found by name or content, or by having changed', () => {
    expect(order({ text: 'SHAR' })).toEqual(['shared']);
    expect(order({ text: 'src/late' })).toEqual(['late']);
    expect(order({ onlyChanged: true }, ['late'])).toEqual(['late']);
  });
});

describe('the rows of the load sheet', () => {
  it('fold under their landing, and can be only those that changed', () => {
    expect(shownRows(sheet, [], { ...view, folded: new Set(['/']) }).map((r) => r.id)).toEqual(['/', '/b']);
    expect(shownRows(sheet, ['/ a'], { ...view, onlyChanged: true }).map((r) => r.id)).toEqual(['/ a']);
  });
});
