import { part, route, sketch } from '../../../test-support/snapshots.ts';
import { BASELINE, type Decision, type Plan } from '../../plan/types.ts';
import { weightPicture } from './picture.ts';
import { type Band, type Block, START } from './types.ts';

const app = sketch(
  {
    'src/main.ts': { imports: ['src/shop/page.ts', 'src/kit/format.ts'], bytes: 4000 },
    'src/shop/page.ts': { imports: ['src/shop/dialog.ts', 'src/kit/format.ts', '~src/shop/chart.ts'], bytes: 8000 },
    'src/shop/dialog.ts': { imports: ['maps/index', 'dates/index'], bytes: 3000 },
    'src/shop/chart.ts': { imports: ['curves/index'], bytes: 2000 },
    'src/kit/format.ts': { imports: ['dates/index'], bytes: 1000 },
    'maps/index': { package: 'maps', imports: ['maps/tiles'], bytes: 60_000 },
    'maps/tiles': { package: 'maps', bytes: 30_000 },
    'dates/index': { package: 'dates', imports: ['dates/zones'], bytes: 20_000 },
    'dates/zones': { package: 'dates', bytes: 9000 },
    'curves/index': { package: 'curves', bytes: 50_000 },
  },
  {
    routes: [
      route('/', 'src/shop/page.ts', {
        parts: [part('dialog', 'src/shop/dialog.ts', { place: 'action', action: 'open it' })],
      }),
    ],
  },
);
const plan = (...decisions: Decision[]): Plan => ({ ...BASELINE, decisions });
const now = { app, plan: BASELINE };
const bandOf = (bands: Band[], id: string) => bands.find((b) => b.id === id)!;
const names = (blocks: Block[]) => blocks.map((b) => [b.kind, b.name, b.weight.minified]);

describe('a route as blocks by weight', () => {
  it('has packages and folders in the start, and what split points bring besides', () => {
    const { bands, lighter } = weightPicture(now, '/');
    expect(bands.map((b) => [b.id, b.trigger?.on ?? null, b.onLanding, b.isNew, b.weight.minified])).toEqual([
      [START, null, true, false, 135_000],
      ['src/shop/chart.ts', 'at once', true, false, 52_000],
    ]);
    expect(names(bands[0].blocks)).toEqual([
      ['package', 'maps', 90_000],
      ['package', 'dates', 29_000],
      ['folder', 'shop', 11_000],
      ['folder', 'src', 4000],
      ['folder', 'kit', 1000],
    ]);
    expect(bands[0].blocks.every((b) => b.to === START && b.keptBy === null)).toBe(true);
    expect(bands[1].joins).toEqual([{ kind: 'join', import: 'src/shop/page.ts::src/shop/chart.ts' }]);
    expect(lighter.count).toBe(0);
    expect(weightPicture(now, '/nowhere').bands).toEqual([]);
  });

  it('takes open packages and folders apart, down to what can be detached', () => {
    const { bands } = weightPicture(now, '/', null, new Set(['package maps', 'folder src/shop', 'folder src']));
    expect(bands[0].blocks.map((b) => [b.kind, b.of, b.opens, b.decisions])).toEqual([
      ['module', 'maps/index', false, [{ kind: 'detach', module: 'maps/index' }]],
      ['module', 'maps/tiles', false, [{ kind: 'detach', module: 'maps/tiles' }]],
      ['package', 'dates', true, [{ kind: 'detach', package: 'dates' }]],
      ['module', 'src/shop/page.ts', false, [{ kind: 'detach', module: 'src/shop/page.ts' }]],
      // The entry starts everything.
      ['module', 'src/main.ts', false, []],
      ['module', 'src/shop/dialog.ts', false, [{ kind: 'detach', module: 'src/shop/dialog.ts' }]],
      ['folder', 'src/kit', true, []],
    ]);
  });

  it('says where each block goes by what is tried, and who keeps what stays all the same', () => {
    const tried = { app, plan: plan({ kind: 'detach', module: 'src/shop/dialog.ts' }) };
    const { bands } = weightPicture(now, '/', tried);
    expect(bands.map((b) => [b.id, b.isNew, b.weight.minified])).toEqual([
      [START, false, 135_000],
      ['src/shop/chart.ts', false, 52_000],
      ['src/shop/dialog.ts', true, 93_000],
    ]);
    const told = bands[0].blocks.map((b) => [b.name, b.weight.minified, b.to, b.keptBy]);
    expect(told).toEqual([
      ['maps', 90_000, 'src/shop/dialog.ts', null],
      ['dates', 29_000, START, 'src/kit/format.ts'],
      ['shop', 8000, START, null],
      ['src', 4000, START, null],
      ['shop', 3000, 'src/shop/dialog.ts', null],
      ['kit', 1000, START, null],
    ]);
  });

  it('shows what is joined as coming into the start, and what the route leaves as going nowhere', () => {
    const joined = weightPicture(now, '/', {
      app,
      plan: plan({ kind: 'join', import: 'src/shop/page.ts::src/shop/chart.ts' }),
    });
    expect(bandOf(joined.bands, 'src/shop/chart.ts').blocks.every((b) => b.to === START)).toBe(true);
    const without = { ...app, imports: app.imports.filter((i) => i.specifier !== 'src/shop/chart.ts') };
    const gone = weightPicture(now, '/', { app: without, plan: BASELINE });
    expect(bandOf(gone.bands, 'src/shop/chart.ts').blocks.every((b) => b.to === null)).toBe(true);
  });
});

describe('many of them', () => {
  const count = 70;
  const many = sketch(
    {
      main: { imports: Array.from({ length: count }, (_, i) => `p${i}/index`) },
      page: { imports: Array.from({ length: 30 }, (_, i) => `~later${i}`) },
      ...Object.fromEntries(
        Array.from({ length: count }, (_, i) => [`p${i}/index`, { package: `p${i}`, bytes: 1000 + i }]),
      ),
      ...Object.fromEntries(Array.from({ length: 30 }, (_, i) => [`later${i}`, { bytes: 500 + i }])),
    },
    { routes: [route('/', 'page')] },
  );

  it('are summed up, so that all of the weight is there', () => {
    const { bands, lighter } = weightPicture({ app: many, plan: BASELINE }, '/');
    const [start] = bands;
    const sum = (blocks: Block[], of: 'minified' | 'compressed') => blocks.reduce((all, b) => all + b.weight[of], 0);
    expect(start.blocks.length).toBeLessThan(50);
    expect(start.blocks.at(-1)).toMatchObject({ kind: 'rest', decisions: [], opens: true });
    const whole = weightPicture({ app: many, plan: BASELINE }, '/', null, new Set([`rest ${START}`])).bands[0];
    expect(whole.blocks.length).toBe(count + 2);
    expect(sum(start.blocks, 'minified')).toBe(start.weight.minified);
    expect(sum(start.blocks, 'compressed')).toBeCloseTo(start.weight.compressed, 6);
    expect(start.blocks.reduce((all, b) => all + b.modules, 0)).toBe(count + 2);
    expect([bands.length, lighter.count]).toEqual([9, 22]);
    expect(lighter.minified + bands.slice(1).reduce((all, b) => all + b.weight.minified, 0)).toBe(30 * 500 + 435);
  });

  it('are told apart where they go', () => {
    const tried = plan(...[60, 65, 69].map((i): Decision => ({ kind: 'detach', package: `p${i}` })));
    const { bands } = weightPicture({ app: many, plan: BASELINE }, '/', { app: many, plan: tried });
    expect(bands[0].blocks.filter((b) => b.to !== START).map((b) => b.of)).toEqual(['p69', 'p65', 'p60']);
    expect(bands.filter((b) => b.isNew).map((b) => b.name)).toEqual(['p60', 'p65', 'p69']);
  });

  it('show the light split points that something leaves or comes to, whatever else is heavier', () => {
    // later0 is the lightest of thirty.
    const still = weightPicture({ app: many, plan: BASELINE }, '/').bands.map((b) => b.id);
    expect(still).not.toContain('later0');
    const joined = plan({ kind: 'join', import: 'page::later0' });
    const { bands, lighter } = weightPicture({ app: many, plan: BASELINE }, '/', { app: many, plan: joined });
    expect(bandOf(bands, 'later0').blocks.map((b) => b.to)).toEqual([START]);
    expect([bands.length, lighter.count]).toEqual([9, 22]);
    // Of those that stay the heaviest are shown.
    const least = Math.min(...bands.slice(2).map((b) => b.weight.compressed));
    expect(least * lighter.count).toBeGreaterThanOrEqual(lighter.compressed);
    expect(bands.map((b) => b.id)).toContain('later29');
  });

  it('keep what stays for something else apart, however light it is', () => {
    const shared = sketch(
      {
        main: { imports: ['page', 'tiny/index', ...Array.from({ length: 6 }, (_, i) => `s${i}/index`)] },
        page: { imports: ['dialog'], bytes: 90_000 },
        dialog: { imports: ['tiny/index'], bytes: 60_000 },
        'tiny/index': { package: 'tiny', bytes: 60 },
        ...Object.fromEntries(Array.from({ length: 6 }, (_, i) => [`s${i}/index`, { package: `s${i}`, bytes: 50 }])),
      },
      { routes: [route('/', 'page')] },
    );
    const tried = { app: shared, plan: plan({ kind: 'detach', module: 'dialog' }) };
    const [start] = weightPicture({ app: shared, plan: BASELINE }, '/', tried).bands;
    expect(start.blocks.find((b) => b.of === 'tiny')).toMatchObject({ to: START, keptBy: 'main' });
    expect(start.blocks.find((b) => b.kind === 'rest')?.modules).toBe(6);
    const whole = weightPicture({ app: shared, plan: BASELINE }, '/').bands[0];
    expect(whole.blocks.find((b) => b.kind === 'rest')?.modules).toBe(7);
  });
});
