import { part, route, type Sketch, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import type { Import } from '../snapshot/module-types.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { compileLoad } from './compile.ts';
import { componentPriceOf, OTHER_COMPONENT } from './component-libraries.ts';
import { DRAWING } from './drawing.ts';
import { OTHERS_BEGIN, USUAL_BYTES } from './drawing-facts.ts';
import { piecePriceOf } from './drawn-by-packages.ts';
import { FIRST_FORMATS_MS } from './first-format-cost.ts';
import { ROWS } from './list-lengths.ts';

const KIT: Record<string, Sketch> = {
  'kit/index': { imports: ['kit/engine'], package: 'kit', bytes: 2000 },
  'kit/engine': { package: 'kit', bytes: 9000 },
  'kit/huge': { package: 'kit', bytes: 400_000 },
  dom: { package: 'dom', bytes: 120_000 },
};
const PAGE = 1000;

/** An app of two pages; `draws`: what modules draw, by name, with how many times. */
function app(
  draws: Record<string, Record<string, number>>,
  more: Record<string, Sketch> = {},
  home: Partial<Route> = {},
) {
  const made = sketch(
    {
      main: { imports: ['home', '~shop', 'dom'], bytes: PAGE },
      home: { imports: ['kit/index', '~dialog', 'card'], bytes: PAGE },
      shop: { imports: ['kit/index'], bytes: PAGE },
      card: { bytes: PAGE },
      dialog: { imports: ['kit/index'], bytes: PAGE },
      ...KIT,
      ...more,
    },
    { routes: [route('/', 'home', { links: ['/shop'], ...home }), route('/shop', 'shop')] },
  );
  const at = (name: string) => made.modules.findIndex((m) => m.path === name);
  for (const [from, of] of Object.entries(draws))
    made.modules[at(from)].draws = Object.entries(of).map(([to, times]) => ({ module: at(to), times }));
  // What is taken of packages are components.
  for (const i of made.imports) if (made.modules[i.to].package !== null) i.names = ['Piece'];
  return made;
}
const parts = (snapshot: Snapshot, decisions: Decision[] = [], pattern = '/') =>
  compileLoad(planned(snapshot, { ...BASELINE, decisions }), pattern).parts;
const cost = (snapshot: Snapshot, id: string, ...more: [Decision[]?, string?]) =>
  parts(snapshot, ...more).find((p) => p.id === id)!.renderMs;

const own = (times = 1) => PAGE * times * DRAWING.ownByte;
const first = (bytes: number) => bytes * DRAWING.firstByte;
/** What the component system takes for so many of the app's own modules that are drawn after `before` others. */
const begin = (modules: number, before = 0) =>
  (before === 0 ? OTHERS_BEGIN.first : 0) + OTHERS_BEGIN.more * (share(before + modules) - share(before));
const share = (modules: number) => Math.min(1, (modules * PAGE) / USUAL_BYTES);

describe('the price of drawing', () => {
  it('is an assumption where no code says what it draws', () => {
    expect(cost(app({}), 'page')).toBe(4);
  });

  it('is what begins, what runs for the first time, and each component by its kind', () => {
    const plain = app({ home: { card: 3 } });
    expect(cost(plain, 'page')).toBeCloseTo(begin(2) + own(1) + own(3) + first(2 * PAGE), 9);
    const kit = app({ home: { 'kit/index': 5 } });
    expect(cost(kit, 'page')).toBeCloseTo(begin(1) + own() + 5 * OTHER_COMPONENT + first(PAGE + 2000 + 9000), 9);
  });

  it('multiplies what is drawn within what is drawn several times, and stands a circle', () => {
    const nested = app({ home: { card: 3 }, card: { 'kit/index': 4 } });
    const circle = app({ home: { card: 3 }, card: { 'kit/index': 4, card: 1, home: 2 } });
    const expected = begin(2) + own(1) + own(3) + 12 * OTHER_COMPONENT + first(2 * PAGE + 11_000);
    expect(cost(nested, 'page')).toBeCloseTo(expected, 9);
    expect(cost(circle, 'page')).toBeCloseTo(expected, 9);
  });

  it('counts of a large module only what can run, and nothing of what the entry starts the framework with', () => {
    const huge = app(
      { home: { 'kit/index': 1 } },
      { 'kit/index': { imports: ['kit/huge', 'dom'], package: 'kit', bytes: 2000 } },
    );
    expect(cost(huge, 'page')).toBeCloseTo(
      begin(1) + own() + OTHER_COMPONENT + first(PAGE + 2000 + DRAWING.mostBytes),
      9,
    );
  });

  it('runs for the first time what functions call: hooks and helpers, of packages with all that they lead to, but not what they only name', () => {
    const plain = cost(app({ home: { card: 1 } }), 'page');
    const calling = (names: string[], more: Partial<Import> = {}, to = 'kit/index') => {
      const made = app({ home: { card: 1 } }, { helper: { imports: ['kit/index'], bytes: 700 } });
      const at = (name: string) => made.modules.findIndex((m) => m.path === name);
      made.imports.push({ ...made.imports[0], from: at('home'), to: at(to), specifier: to, names, ...more });
      if (to === 'helper') made.imports.find((i) => i.from === at('helper'))!.names = ['usePiece'];
      return cost(made, 'page') - plain;
    };
    const kit = first(2000 + 9000);
    expect(calling(['usePiece'])).toBeCloseTo(kit, 9);
    expect(calling(['Piece', 'usePiece'])).toBeCloseTo(kit, 9);
    expect(calling(['default'])).toBeCloseTo(kit, 9);
    expect(calling(['helper'], {}, 'helper')).toBeCloseTo(first(700) + kit, 9);
    expect(calling(['Piece'])).toBeCloseTo(0, 9);
    expect(calling(['usePiece'], { onActs: true })).toBeCloseTo(0, 9);
    expect(calling(['usePiece'], { onEffects: true })).toBeCloseTo(0, 9);
    expect(calling(['usePiece'], { kind: 'dynamic' })).toBeCloseTo(0, 9);
    expect(calling(['default'], {}, 'helper')).toBeCloseTo(0, 9);
  });

  it('is drawn once it is, though it was called before', () => {
    const made = app({ home: { card: 1 }, card: { 'kit/index': 4 } });
    const called = structuredClone(made);
    called.imports.find((i) => called.modules[i.from].path === 'home' && called.modules[i.to].path === 'card')!.names =
      ['Card', 'cardOf'];
    expect(cost(called, 'page')).toBeCloseTo(cost(made, 'page'), 9);
  });

  describe('of lists whose length no code tells', () => {
    const call = { id: 'rows', address: '/api/rows', bytes: 900, serverMs: 5, module: 'home' };
    /** A page that draws rows of a package's components, by a list of its own. */
    const listing = (home: Partial<Route> = {}, drawn = 'kit/index') => {
      const made = app({ home: { [drawn]: 2 } }, {}, home);
      made.modules.find((m) => m.path === 'home')!.draws![0].rows = 3;
      return made;
    };
    const rows = 3 * ROWS;
    const page = (made: Snapshot) => parts(made).find((p) => p.id === 'page')!;

    it('counts as many rows as lists mostly have', () => {
      const expected = begin(1) + own() + (2 + rows) * OTHER_COMPONENT + first(PAGE + 11_000);
      expect(page(listing()).renderMs).toBeCloseTo(expected, 9);
      expect(page(listing({ data: [call], pageAfter: ['rows'] })).renderMs).toBeCloseTo(expected, 9);
    });

    it('draws none before the answers are there that fill them', () => {
      const { renderMs, fillMs } = page(listing({ data: [call] }));
      expect(renderMs).toBeCloseTo(begin(1) + own() + 2 * OTHER_COMPONENT + first(PAGE + 11_000), 9);
      expect(fillMs).toBeCloseTo(own() + (2 + rows) * OTHER_COMPONENT, 9);
    });

    it('runs what only rows draw for the first time with them', () => {
      const made = listing({ data: [call] });
      made.modules.find((m) => m.path === 'home')!.draws![0].times = 0;
      const { renderMs, fillMs } = page(made);
      expect(renderMs).toBeCloseTo(begin(1) + own() + first(PAGE), 9);
      expect(fillMs).toBeCloseTo(own() + rows * OTHER_COMPONENT + first(11_000), 9);
    });

    it('counts the rows of a part that stands apart, where something of the screen draws it so', () => {
      const [alone, listed] = [app({ home: { card: 1 } }), listing({}, 'card')].map((made) => {
        made.routes[0].parts = [part('card', 'card')];
        return cost(made, 'card');
      });
      expect(alone).toBeCloseTo(begin(1, 1) + own() + first(PAGE), 9);
      expect(listed).toBeCloseTo(begin(1, 1) + own(2 + rows) + first(PAGE), 9);
    });
  });

  it('lets a later part of the page pay only for what no earlier one ran', () => {
    const both = app(
      { home: { 'kit/index': 1 }, dialog: { 'kit/index': 2 } },
      { main: { imports: ['home', '~shop', 'dom', 'dialog'], bytes: PAGE } },
      { parts: [part('dialog', 'dialog')] },
    );
    expect(cost(both, 'dialog')).toBeCloseTo(begin(1, 1) + own() + 2 * OTHER_COMPONENT + first(PAGE), 9);
    expect(cost(both, 'page')).toBeCloseTo(cost(app({ home: { 'kit/index': 1 } }), 'page'), 9);
  });

  it('belongs to the part that stands apart, be it named, a screen or deferred by the plan', () => {
    const draws = { home: { card: 1, shop: 1 }, card: { 'kit/index': 10 } };
    const named = app(draws, {}, { parts: [part('card', 'card')] });
    expect(cost(named, 'page')).toBeCloseTo(begin(1) + own() + first(PAGE), 9);
    const deferred: Decision[] = [{ kind: 'detach', import: 'home::card' }];
    expect(cost(app(draws), 'page', deferred)).toBeCloseTo(begin(1) + own() + first(PAGE), 9);
  });

  it('is more for what comes by itself, once for what comes together, and nothing where it was measured', () => {
    const call = { id: 'rows', address: '/api/rows', bytes: 900, serverMs: 5, module: 'home' };
    const both = ['dialog', 'card'].map((id) => ({ ...part(id, id), drawnAfter: ['rows'] }));
    const having = (parts: Route['parts'], imports: string[]) =>
      app({ home: { dialog: 1, card: 1 } }, { home: { imports, bytes: PAGE } }, { parts, data: [call] });
    const alone = own() + first(PAGE);
    const [dialog, card] = [alone + begin(1, 1), alone + begin(1, 2)];
    const plain = having([part('dialog', 'dialog'), part('card', 'card')], ['dialog', 'card']);
    expect(cost(plain, 'dialog')).toBeCloseTo(dialog, 9);
    const deferred = having([part('dialog', 'dialog'), part('card', 'card')], ['~dialog', '~card']);
    expect(cost(deferred, 'dialog')).toBeCloseTo(dialog + DRAWING.apart, 9);
    expect(cost(deferred, 'card')).toBeCloseTo(card + DRAWING.apart, 9);
    const answered = having(both, ['dialog', 'card']);
    expect(cost(answered, 'dialog')).toBeCloseTo(dialog + DRAWING.apart, 9);
    expect(cost(answered, 'card')).toBeCloseTo(card, 9);
    expect(cost(having([{ ...both[0], drawMs: 3 }, both[1]], ['dialog', 'card']), 'dialog')).toBe(3);
  });

  it('begins as its component system does', () => {
    const page = (name: string) => cost(app({ home: { card: 1 } }, { dom: { package: name, bytes: 1000 } }), 'page');
    const others = begin(2);
    expect(page('react-dom') - page('dom')).toBeCloseTo(12 + 12 * share(2) - others, 9);
    const unknown = app({ home: { 'kit/index': 1 } }, { main: { imports: ['home', 'kit/index'], bytes: PAGE } });
    const system = app(
      { home: { 'kit/index': 1 } },
      { main: { imports: ['home', 'kit/index'], bytes: PAGE }, dom: { package: 'vue', bytes: 1 } },
    );
    // Of an unknown system all counts as its own that entries begin with; of one that is known, what it leads to.
    const vue = 11 + 13 * share(1) - begin(1);
    expect(cost(system, 'page') - cost(unknown, 'page')).toBeCloseTo(vue + first(2000 + 9000), 9);
    expect(page('preact') - page('dom')).toBeCloseTo(4 + 3 * share(2) - others, 9);
  });

  it('is measured where somebody measured it', () => {
    const measured = app({ home: { card: 1 } }, {}, { parts: [{ ...part('card', 'card'), drawMs: 33 }] });
    expect(cost(measured, 'card')).toBe(33);
  });

  it('never goes beyond what anybody draws at once', () => {
    const endless = app({ home: { card: 200 }, card: { 'kit/index': 200 } });
    expect(cost(endless, 'page')).toBeLessThan(450);
  });

  describe('of the first that formats', () => {
    const formatting = (
      formats: Record<string, 'always' | 'with data'>,
      home: Partial<Route> = {},
      starts?: string,
    ) => {
      const snapshot = app({ home: { card: 1 }, shop: { 'kit/index': 1 } }, {}, home);
      for (const m of snapshot.modules) {
        if (formats[m.path]) m.formats = formats[m.path];
        if (m.path === starts) m.startsFormats = true;
      }
      return snapshot;
    };
    const home = (...given: Parameters<typeof formatting>) => parts(formatting(...given)).find((p) => p.id === 'page')!;
    const { renderMs: plain } = home({});
    const call = { id: 'rows', address: '/api/rows', bytes: 900, serverMs: 5, module: 'home' };

    it('is dear, once in a document', () => {
      const page = home({ home: 'always', card: 'always' });
      expect(page.renderMs).toBeCloseTo(plain + FIRST_FORMATS_MS, 9);
      expect(page.tabledMs).toBe(FIRST_FORMATS_MS);
      expect(home({ card: 'with data', home: 'always' }).renderMs).toBeCloseTo(plain + FIRST_FORMATS_MS, 9);
    });

    it('is cheap where code has done so as it ran', () => {
      expect(home({ card: 'always' }, {}, 'main').renderMs).toBeCloseTo(plain, 9);
      expect(home({ card: 'always' }, {}, 'shop').renderMs).toBeCloseTo(plain + FIRST_FORMATS_MS, 9);
    });

    it('comes with the data that fills the page, where it stands under a condition', () => {
      const page = home({ card: 'with data' }, { data: [call] });
      expect(page.renderMs).toBeCloseTo(plain, 9);
      expect(page.fillMs).toBeCloseTo(FIRST_FORMATS_MS + page.showsMs!, 9);
      expect(home({ card: 'always' }, { data: [call] }).fillMs).toBeCloseTo(page.showsMs!, 9);
    });

    it('comes at once where the page itself waits for data, and where no data is asked for', () => {
      expect(home({ card: 'with data' }).renderMs).toBeCloseTo(plain + FIRST_FORMATS_MS, 9);
      const waits = home({ card: 'with data' }, { data: [call], pageAfter: ['rows'] });
      expect(waits.renderMs).toBeCloseTo(plain + FIRST_FORMATS_MS, 9);
      expect(waits.fillMs).toBeCloseTo(waits.showsMs!, 9);
    });

    it('is left to the first that is filled', () => {
      const snapshot = formatting(
        { home: 'with data' },
        { data: [call], parts: [{ ...part('card', 'card'), needs: ['rows'] }] },
      );
      const [page, card] = ['page', 'card'].map((id) => parts(snapshot).find((p) => p.id === id)!);
      expect(page.fillMs).toBeUndefined();
      expect(card.fillMs).toBeCloseTo(FIRST_FORMATS_MS + card.showsMs!, 9);
    });
  });

  describe('of what packages draw by script', () => {
    const map = piecePriceOf('leaflet')!;
    /** Of two pages each has a canvas that the package draws on, by a module of its own and by one that is drawn. */
    const maps = (
      makes: Record<string, string[]>,
      draws: Record<string, Record<string, number>> = {},
      piece = 'leaflet',
    ) => {
      const snapshot = app(draws, {
        home: { imports: ['kit/index', 'card', 'leaflet', 'line/index'], bytes: PAGE },
        'line/index': { package: 'line', imports: ['leaflet'], bytes: 2000 },
        'line/axis': { package: 'line', imports: ['leaflet'], bytes: 2000 },
        leaflet: { package: piece, imports: ['kit/huge'], bytes: 200_000 },
      });
      const at = (name: string) => snapshot.modules.findIndex((m) => m.path === name);
      for (const [from, of] of Object.entries(makes)) snapshot.modules[at(from)].makes = of.map(at);
      return snapshot;
    };
    const plain = (draws: Record<string, Record<string, number>> = { home: { card: 1 } }) => cost(app(draws), 'page');

    it('is what the table says, with all that the package leads to', () => {
      const snapshot = maps({ home: ['leaflet'] }, { home: { card: 1 } });
      expect(cost(snapshot, 'page')).toBeCloseTo(plain() + map.first, 9);
      expect(parts(snapshot).find((p) => p.id === 'page')!.tabledMs).toBeCloseTo(map.first, 9);
    });

    it('is dear once in a document, and as dear again as often as it is drawn', () => {
      const lists = maps({ card: ['leaflet'] }, { home: { card: 3 } });
      expect(cost(lists, 'page')).toBeCloseTo(plain({ home: { card: 3 } }) + map.first + 2 * map.again, 9);
    });

    it('is one piece for all components of a wrapper that stand together', () => {
      const wrapped = maps({}, { home: { card: 1, 'line/index': 2, 'line/axis': 1 } });
      expect(cost(wrapped, 'page')).toBeCloseTo(plain() + map.first + map.again + first(2000 + 2000), 9);
    });

    it('comes on top of an assumption where no code says what else it draws', () => {
      expect(cost(maps({ home: ['leaflet'] }), 'page')).toBeCloseTo(4 + map.first, 9);
    });

    it('costs a handler nothing, and an entry that only prepares it takes nothing off', () => {
      const prepared = maps({ home: ['leaflet'] }, { home: { card: 1 } });
      const { modules, imports } = prepared;
      const at = (name: string) => modules.findIndex((m) => m.path === name);
      imports.push({ ...imports[0], from: at('main'), to: at('leaflet'), specifier: 'leaflet', kind: 'static' });
      expect(cost(prepared, 'page')).toBeCloseTo(plain() + map.first, 9);
      expect(cost(maps({}, { home: { card: 1 } }), 'page')).toBeCloseTo(plain(), 9);
    });

    it('is that of the first text of a language as well, where the package formats', () => {
      const chart = piecePriceOf('chart.js')!;
      const snapshot = maps({ home: ['leaflet'] }, { home: { card: 1 } }, 'chart.js');
      expect(cost(snapshot, 'page')).toBeCloseTo(plain() + chart.first + FIRST_FORMATS_MS, 9);
      const formatted = maps({ home: ['leaflet'] }, { home: { card: 1 } }, 'chart.js');
      formatted.modules.find((m) => m.path === 'main')!.startsFormats = true;
      expect(cost(formatted, 'page')).toBeCloseTo(plain() + chart.first, 9);
    });

    it('goes to what measured it', () => {
      const snapshot = maps({ home: ['leaflet'] }, { home: { card: 1 } });
      snapshot.routes[0].draws = { page: 20 };
      expect(parts(snapshot).find((p) => p.id === 'page')).toMatchObject({ renderMs: 20, measured: true });
    });
  });
});

describe('a component of a package', () => {
  it('costs what was measured of its library, by its name or that of its family', () => {
    expect(['antd', '@mui/material', '@mui/system', '@chakra-ui/button'].map(componentPriceOf)).toEqual([
      ...[2.2, 0.39, 0.39, 0.97],
    ]);
    expect(['kit', '@radix-ui/react-tabs', 'antd-mobile', '@mui'].map(componentPriceOf)).toEqual(
      Array(4).fill(OTHER_COMPONENT),
    );
  });
});
