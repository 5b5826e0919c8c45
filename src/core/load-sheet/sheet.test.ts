import { part, route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { type LoadSheet, loadSheet, sheetDifference } from './sheet.ts';

const app = sketch(
  {
    main: { imports: ['~home', '~shop'] },
    home: { bytes: 4000, imports: ['~dialog', '~chart', 'lib'] },
    shop: { bytes: 5000, imports: ['lib', '~dialog'] },
    dialog: { bytes: 9000, imports: ['lib'] },
    chart: { bytes: 7000 },
    lib: { bytes: 3000 },
  },
  {
    routes: [
      route('/', 'home', {
        links: ['/shop', '/'],
        parts: [
          part('dialog', 'dialog', { place: 'action', action: 'Open it' }),
          part('chart', 'chart', { place: 'below' }),
        ],
      }),
      route('/shop', 'shop', { parts: [part('dialog', 'dialog', { place: 'action', action: 'Open it' })] }),
    ],
  },
);

const sheetOf = (...decisions: Decision[]) => loadSheet(app, { ...BASELINE, decisions } as Plan, DEFAULT_CONDITIONS);
const said = (sheet: LoadSheet) =>
  sheet.rows.map((r) => [
    r.kind,
    r.name,
    Object.fromEntries(r.cells.map((c) => [sheet.columns[c.column].name, c.role])),
  ]);

describe('the load sheet', () => {
  it('has a row per landing, later moment and move, with how each chunk reaches it', () => {
    expect(said(sheetOf())).toEqual([
      ['landing', '/', { entry: 'needed', home: 'needed', lib: 'needed' }],
      ['action', 'Open it: dialog', { entry: 'here', home: 'here', lib: 'here', dialog: 'on demand' }],
      ['scroll', 'chart', { entry: 'here', home: 'here', lib: 'here', chart: 'on demand' }],
      ['move', '/shop', { entry: 'here', home: 'here', lib: 'here', shop: 'on demand' }],
      ['landing', '/shop', { entry: 'needed', lib: 'needed', shop: 'needed' }],
      ['action', 'Open it: dialog', { entry: 'here', lib: 'here', shop: 'here', dialog: 'on demand' }],
    ]);
  });

  it('adds up what travels for each moment, and only that', () => {
    const sheet = sheetOf();
    const bytes = (name: string) => sheet.columns.find((c) => c.name === name)!.bytes;
    expect(sheet.rows.map((r) => r.bytes)).toEqual([
      bytes('entry') + bytes('home') + bytes('lib'),
      bytes('dialog'),
      bytes('chart'),
      bytes('shop'),
      bytes('entry') + bytes('lib') + bytes('shop'),
      bytes('dialog'),
    ]);
    const lib = sheet.columns.find((c) => c.name === 'lib')!;
    expect([lib.used, lib.firstRow, lib.holds]).toEqual([2, 0, ['lib']]);
  });

  it('shows what hints bring early, and what was fetched in case when it is used', () => {
    const hint = (kind: 'modulepreload' | 'prefetch', module: string): Decision => ({
      kind: 'hint',
      hint: { kind, place: 'markup', target: { kind: 'split point', module }, routes: ['/'] },
    });
    const rows = said(sheetOf(hint('modulepreload', 'home'), hint('prefetch', 'dialog')));
    expect(rows[0][2]).toMatchObject({ home: 'hinted', dialog: expect.stringMatching(/in case|wasted/) });
    expect(rows[1][2]).toMatchObject({ dialog: 'ready', lib: 'here' });
  });

  it('puts code that is fetched once the page is quiet into a row of its own', () => {
    const rows = said(sheetOf({ kind: 'trigger', splitPoint: 'chart', fetch: { on: 'idle' } }));
    expect(rows.filter((r) => r[0] === 'quiet').map((r) => r[1])).toEqual(['chart, when idle']);
  });

  it('tells in which rows and columns two plans differ', () => {
    const before = sheetOf();
    expect(sheetDifference(before, sheetOf())).toEqual({ rows: new Set(), columns: new Set() });
    const after = sheetOf({ kind: 'trigger', splitPoint: 'chart', fetch: { on: 'at once' } });
    const { rows, columns } = sheetDifference(after, before);
    expect([...rows]).toEqual(['/', '/ chart']);
    expect([...columns].map((id) => after.columns.find((c) => c.id === id)?.name)).toEqual(['chart']);
  });
});
