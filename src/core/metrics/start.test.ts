import fc from 'fast-check';
import { anyConditions, anyLivedApp, anyPicks, planBy } from '../../test-support/plans.ts';
import { file, page, ROUND, requestRecord } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { PlanFigures } from '../compare/figures.ts';
import { inventoryOf } from '../inventory/inventory.ts';
import { loadSheet } from '../load-sheet/sheet.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { shipped } from '../ship/shipped.ts';
import { LINKS } from '../sim/conditions.ts';
import type { Timeline } from '../sim/types.ts';
import { startSums } from './start.ts';

const app = sketch(
  {
    main: { imports: ['home', 'other'] },
    home: { imports: ['form', 'dialog', 'far', '~hero', '~chat', 'menu'] },
    form: { bytes: 3000 },
    dialog: { bytes: 30_000 },
    far: { bytes: 9000 },
    menu: { bytes: 6000 },
    hero: { bytes: 12_000 },
    chat: { bytes: 15_000 },
    other: { bytes: 24_000 },
  },
  {
    routes: [
      route('/', 'home', {
        parts: [
          part('form', 'form'),
          part('hero', 'hero'),
          part('dialog', 'dialog', { place: 'action' }),
          part('chat', 'chat', { place: 'action' }),
          part('far', 'far', { place: 'below' }),
          part('menu', 'menu', { place: 'conditional', condition: { kind: 'media', maxWidth: 600 } }),
        ],
      }),
      route('/other', 'other'),
    ],
    scripts: [
      {
        ...{ id: 'tag', name: 'tag', address: 'https://tags.example/t.js', bytes: 5000, serverMs: 10 },
        ...{ evaluationMs: 0, placement: 'after load', evidence: null },
      },
    ],
  },
);
const narrow = { ...ROUND, device: { ...ROUND.device, viewport: { width: 400, height: 800 } } };
const readOf = (decisions: Decision[] = [], conditions = ROUND) =>
  predict(app, { ...BASELINE, decisions }, '/', conditions).reading.readout;
const when = (splitPoint: string, on: 'idle' | 'at once' | 'after first paint'): Decision => ({
  kind: 'trigger',
  splitPoint,
  fetch: { on },
});

describe('the sums of a landing', () => {
  it('are the start, other scripts, and what is fetched without being needed', () => {
    const plain = readOf();
    expect(plain.otherScripts).toBe(5000);
    expect(plain.alsoFetched).toBe(0);
    const chat = readOf([when('chat', 'idle')]);
    expect(chat.startBytes).toBe(plain.startBytes);
    expect(chat.alsoFetched).toBeGreaterThan(4900);
    // Asked for at once, and still nothing that the first screen needs.
    expect(readOf([when('chat', 'at once')])).toMatchObject({
      startBytes: plain.startBytes,
      alsoFetched: chat.alsoFetched,
    });
    // A part of the first screen is needed however late it is fetched.
    expect(readOf([when('hero', 'after first paint')]).startBytes).toBe(plain.startBytes);
  });

  it('count a script that a hint fetches and nothing uses as fetched besides, whoever wrote it', () => {
    const inlined = { ...app, scripts: [{ ...app.scripts[0], placement: 'inlined' as const }] };
    const hint: Decision = {
      kind: 'hint',
      hint: {
        ...{ kind: 'preload', place: 'early', routes: [] },
        target: { kind: 'asset', address: app.scripts[0].address },
      },
    };
    const { readout } = predict(inlined, { ...BASELINE, decisions: [hint] }, '/', ROUND).reading;
    expect(readout).toMatchObject({ otherScripts: 0, alsoFetched: 5000, wasted: 5000 });
  });

  it('count a file that is asked for again as fetched besides, and mark those of unknown size', () => {
    const program = page([], [file('/a.js'), file('/x.js', { purpose: 'other script', bytes: 0, unknownSize: true })]);
    const requests = [requestRecord(0, 9), requestRecord(1, 9), requestRecord(2, 9, { resource: 1 })];
    expect(startSums(program, { requests } as unknown as Timeline, ROUND)).toEqual({
      start: [{ request: 0, bytes: 1000, idle: 0 }],
      'also fetched': [{ request: 1, bytes: 1000, idle: 0 }],
      'other scripts': [{ request: 2, bytes: 0, idle: 0, unknown: true }],
    });
  });

  it('say what of the start the first screen can do without, on this screen', () => {
    const dear = (names: string[]) =>
      names.reduce((sum, n) => sum + app.modules.find((m) => m.path === n)!.bytes.marginal, 0);
    const idle = dear(['dialog', 'far', 'menu', 'other']);
    const { unusedAtStart } = readOf();
    expect(unusedAtStart / idle).toBeGreaterThan(0.95);
    expect(unusedAtStart / idle).toBeLessThan(1.05);
    const rest = readOf([], narrow).unusedAtStart / (idle - dear(['menu']));
    expect(rest).toBeGreaterThan(0.95);
    expect(rest).toBeLessThan(1.05);
  });

  it('are one number everywhere, and hang on no link, protocol or cache', () => {
    fc.assert(
      fc.property(anyLivedApp(12), anyConditions, anyPicks, (snapshot, conditions, numbers) => {
        const plan = planBy(snapshot, numbers);
        const ships = shipped(snapshot, plan).snapshot;
        const inventory = inventoryOf(ships, plan, conditions);
        const sheet = loadSheet(ships, plan, conditions);
        const figures = new PlanFigures(snapshot, plan);
        for (const { pattern } of ships.routes) {
          const { reading, timeline, program } = predict(ships, plan, pattern, conditions);
          const { startBytes, otherScripts, alsoFetched, unusedAtStart } = reading.readout;
          const other = { ...conditions, link: { ...LINKS[4], protocol: 'h1' as const }, cache: 'empty' as const };
          expect(predict(ships, plan, pattern, other).reading.readout).toMatchObject({
            startBytes,
            otherScripts,
            unusedAtStart,
          });
          const row = inventory.routes.find((r) => r.pattern === pattern)!;
          expect(row.only.compressed + row.some.compressed + row.every.compressed).toBeCloseTo(startBytes, 3);
          expect(row.packages.reduce((sum, p) => sum + p.sizes.compressed, 0)).toBeCloseTo(startBytes, 3);
          expect(row).toMatchObject({ otherScripts, alsoFetched, unusedAtStart });
          expect(sheet.rows.find((r) => r.id === pattern)!.start).toBe(startBytes);
          expect(figures.landing(pattern, conditions)).toMatchObject({
            'start bytes': startBytes,
            'other scripts': otherScripts,
            'also fetched': alsoFetched,
            'unused bytes': unusedAtStart,
          });
          expect(unusedAtStart).toBeLessThanOrEqual(startBytes + 1e-6);
          // What is needed is the start, and the start is needed.
          for (const r of timeline.requests) {
            const item = program.resources[r.resource];
            if (item?.chunk === undefined) continue;
            if (r.role === 'needed') expect(item.purpose).toBe('start');
            if (item.purpose === 'start') expect(r.role).not.toBe('on demand');
          }
        }
      }),
      { numRuns: 120, endOnFailure: true },
    );
  });
});
