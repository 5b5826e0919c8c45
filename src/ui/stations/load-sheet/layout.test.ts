import type { LoadSheet } from '../../../core/load-sheet/sheet.ts';
import { BREAK, placeColumns, shownRows, type View } from './layout.ts';

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

  it('fill the space and never overlap; what is drawn to scale is as wide as it weighs', () => {
    for (const zoom of [1, 4]) {
      const placed = placeColumns(sheet, [], { ...view, zoom }, 400);
      for (const [i, p] of placed.entries()) {
        expect(p.width).toBeGreaterThan(3);
        if (i > 0) expect(p.x).toBeGreaterThanOrEqual(placed[i - 1].x + placed[i - 1].width);
      }
      const toScale = placed.filter((p) => !p.light);
      const [{ width, column: first }] = toScale;
      for (const p of toScale) expect(p.width / p.column.bytes).toBeCloseTo(width / first.bytes, 9);
      expect(Math.min(...toScale.map((p) => p.width))).toBeGreaterThanOrEqual(11);
      const last = placed[3];
      if (zoom === 1) expect(last.x + last.width).toBeLessThanOrEqual(400);
    }
  });

  it('that are too light for the scale stand behind a break in their own order, fewer of them the larger the zoom', () => {
    const at = (zoom: number) => placeColumns(sheet, [], { ...view, zoom }, 400);
    const light = (zoom: number) => at(zoom).flatMap((p) => (p.light ? [p.column.id] : []));
    expect([light(1), light(4), light(8)]).toEqual([['never'], ['never'], []]);
    const many = {
      ...sheet,
      columns: [column('big', 90_000, 1, 0), ...[5, 3, 4].map((n) => column(`small${n}`, 100 * n, 1, n))],
    };
    const placed = placeColumns(many, [], view, 400);
    expect(placed.map((p) => [p.column.id, p.light])).toEqual([
      ['big', false],
      ['small3', true],
      ['small4', true],
      ['small5', true],
    ]);
    expect(placed[1].x - placed[0].x - placed[0].width).toBe(BREAK + 2);
    expect(new Set(placed.slice(1).map((p) => p.width)).size).toBe(1);
    const alike = { ...sheet, columns: [1, 2, 3].map((n) => column(`c${n}`, 0, 1, n)) };
    expect(placeColumns(alike, [], view, 400).map((p) => [p.light, p.width])).toEqual([
      [true, 11],
      [true, 11],
      [true, 11],
    ]);
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
