import fs from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { candidatesOf } from './core/advise/advise.ts';
import { AnalysisContext } from './core/advise/detect/analysis-context.ts';
import { NO_AMENDMENTS } from './core/amend/types.ts';
import { checkMarkdown, checkReport } from './core/check/report.ts';
import { apportion } from './core/chunks/apportion.ts';
import { planned } from './core/chunks/planned.ts';
import { styleConflicts } from './core/chunks/style-order.ts';
import { planTable } from './core/compare/compare.ts';
import { earnedBy } from './core/compare/earned.ts';
import type { InputError } from './core/errors.ts';
import { granularity } from './core/explain/granularity.ts';
import { explainHold } from './core/explain/hold.ts';
import { waitsUnder } from './core/explain/wait.ts';
import { parseLoadCase } from './core/formats/load-case.ts';
import { playCase } from './core/formats/play-case.ts';
import { handoff } from './core/handoff/handoff.ts';
import { review } from './core/handoff/review.ts';
import { inventoryOf } from './core/inventory/inventory.ts';
import { findLeaks } from './core/inventory/leaks.ts';
import { orderNotices } from './core/inventory/order-notices.ts';
import { startsOf } from './core/inventory/starts.ts';
import { whereabouts } from './core/inventory/whereabouts.ts';
import { limitStates, proposeLimits } from './core/limits/limits.ts';
import { compileLoad } from './core/load/compile.ts';
import { loadSheet, sheetDifference } from './core/load-sheet/sheet.ts';
import { outlineOf } from './core/outline/outline.ts';
import { BASELINE, type Plan } from './core/plan/types.ts';
import { predict } from './core/predict/predict.ts';
import { reconcile } from './core/reconcile/reconcile.ts';
import { reconcileMarkdown, reconcileTables } from './core/reconcile/reconcile-text.ts';
import { shipped, troublesOf } from './core/ship/shipped.ts';
import { DEFAULT_CONDITIONS } from './core/sim/conditions.ts';
import { simulate } from './core/sim/simulate.ts';
import { simulateVisit } from './core/sim/simulate-visit.ts';
import { checkBase } from './core/snapshot/base.ts';
import { SNAPSHOT } from './core/snapshot/check.ts';
import { graphIndex, importKey } from './core/snapshot/graph-index.ts';
import { landingShares } from './core/snapshot/landing-shares.ts';
import type { Snapshot } from './core/snapshot/types.ts';
import { finish } from './core/steps.ts';
import { drawVisit } from './core/visitors/draw.ts';
import { expectWaits } from './core/visitors/expect.ts';
import { modelOf } from './core/visitors/model.ts';
import { wishesOf } from './core/visitors/reckon.ts';
import { typicalVisit } from './core/visitors/typical.ts';
import { sumsOf } from './core/visits/experience.ts';
import { writeVisit } from './core/visits/notation.ts';
import { playVisit } from './core/visits/play.ts';
import { VisitCompiler } from './core/visits/program.ts';
import type { Visit } from './core/visits/types.ts';
import { anyConditions, anyProgram, anyVisit } from './test-support/any-program.ts';
import { builtApp, FULL_PLANS, fullApp } from './test-support/full-app.ts';
import { pin, told } from './test-support/pin.ts';
import { anyApp } from './test-support/snapshots.ts';

/**
 * What every stage says of one small app that has one of nearly everything, under plans with every kind of decision, kept as it is (by digests): a change
 * shows here at once, wherever it comes from. Whether it is right is the matter of the stages' own tests. To see what differs, write the texts
 * out before and after (`PINNED=FOLDER npm run unit -- src/pinned`) and compare the folders; run it with -u only for what was meant.
 */
const app = fullApp();
const plans = [BASELINE, ...FULL_PLANS];

function each<T>(items: readonly T[], name: (item: T) => string, tell: (item: T) => unknown): string {
  return items.map((item) => `${name(item)}: ${told(tell(item))}`).join('\n');
}

const ofPlans = (tell: (plan: (typeof plans)[number], app: Snapshot) => unknown) =>
  each(
    plans,
    (p) => p.name,
    (p) => tell(p, shipped(app, p).snapshot),
  );
const patterns = app.routes.map((r) => r.pattern);

describe('one app as it is under every plan, stage by stage', () => {
  it('snapshot', () => {
    pin('shares', told(landingShares(app.routes)));
    pin('graph index', told(graphIndex(app)));
    pin('import keys', told(app.imports.map((i) => importKey(app, i))));
  });

  it('what ships', () => {
    pin(
      'what ships',
      ofPlans((p, { modules, imports }) => [
        modules.map((m) => [m.path, m.kind, m.bytes.minified, m.bytes.gzip]),
        imports.map((i) => [i.from, i.to, i.kind]),
        troublesOf(app, p),
      ]),
    );
  });

  it('chunks', () => {
    pin(
      'chunks',
      ofPlans((p, ships) => planned(ships, p).graph),
    );
  });

  it('outlines', () => {
    pin(
      'outlines',
      ofPlans((p, ships) =>
        patterns.map((r) => {
          const outline = outlineOf(ships, p, r);
          return [outline, outline.splits.map((s) => outlineOf(ships, p, r, s.target))];
        }),
      ),
    );
    pin('outline of nothing', told(outlineOf(app, BASELINE, '/nowhere')));
  });

  it('inventories', () => {
    pin(
      'inventories',
      ofPlans((p, ships) => {
        const starts = startsOf(ships, p);
        return [
          inventoryOf(ships, p, DEFAULT_CONDITIONS),
          findLeaks(ships, starts.plan, starts.starts),
          orderNotices(ships, p),
          ships.modules.map((m) => whereabouts(ships, p, m.path)),
        ];
      }),
    );
  });

  it('load programs and their readings', () => {
    pin(
      'load programs',
      ofPlans((p, ships) => patterns.map((r) => compileLoad(planned(ships, p), r))),
    );
    pin(
      'readings',
      ofPlans((p, ships) => patterns.map((r) => predict(ships, p, r, DEFAULT_CONDITIONS).reading)),
    );
  });

  it('load sheets', () => {
    const sheets = plans.map((p) => loadSheet(shipped(app, p).snapshot, p, DEFAULT_CONDITIONS));
    pin(
      'load sheets',
      each(
        sheets,
        () => 'sheet',
        (s) => s,
      ),
    );
    pin(
      'differences of sheets',
      each(
        sheets,
        () => 'difference',
        (s) => sheetDifference(s, sheets[0]),
      ),
    );
  });

  it('explanations', () => {
    pin(
      'explanations',
      ofPlans((p, ships) =>
        app.routes.flatMap((r) => [
          ['src/dialog', 'src/map', 'src/chart', 'src/legend'].map((t) => explainHold(ships, p, [], r, t)),
          ['src/dialog', 'src/map'].map((t) => waitsUnder(ships, p, r.pattern, t, [DEFAULT_CONDITIONS])),
        ]),
      ),
    );
    pin('granularity', told([...granularity(app, BASELINE, '/', DEFAULT_CONDITIONS)]));
  });

  it('visitors and their visits', () => {
    const { model } = modelOf(app);
    pin('visitors', told([modelOf(app), wishesOf(model)]));
    const said = plans.map((p) => {
      const compiler = new VisitCompiler(planned(shipped(app, p).snapshot, p));
      const drawn = Array.from({ length: 12 }, (_, n) => drawVisit(model, compiler, 5, n));
      const visits = [
        ...patterns.map((r) => typicalVisit(model, compiler, r)),
        ...drawn.map((d) => d.visit),
        ALL_STEPS,
      ];
      const variants = [{ conditions: DEFAULT_CONDITIONS, share: 1 }];
      return [
        drawn.map((d) => [d.touch, d.dataSaver, d.cache, d.even]),
        visits.map((v) => {
          const { experiences, timeline } = playVisit(compiler, v, DEFAULT_CONDITIONS);
          return [writeVisit(v), experiences, sumsOf(experiences, timeline)];
        }),
        finish(expectWaits(compiler, model, variants, { seed: 2, visits: 60, error: 0 })),
      ];
    });
    pin(
      'visits',
      each(
        said,
        () => 'visits',
        (s) => s,
      ),
    );
  });

  it('comparisons, limits and what broke them', () => {
    pin(
      'plan tables',
      ofPlans((p) => planTable(app, p, [DEFAULT_CONDITIONS])),
    );
    pin(
      'earned',
      ofPlans((p) => earnedBy(app, p, '/', DEFAULT_CONDITIONS)),
    );
    const limits = proposeLimits(app, BASELINE, DEFAULT_CONDITIONS, 0.02);
    pin('limit states', told(limitStates(app, limits, plans)));
    const project = { snapshot: app, plans, amendments: { ...NO_AMENDMENTS, limits } };
    const reports = [undefined, ...plans].flatMap((p) => [app, grown()].map((now) => checkReport(project, now, p)));
    pin(
      'checks',
      each(
        reports,
        () => 'check',
        (r) => r,
      ),
    );
    pin('checks in Markdown', reports.map(checkMarkdown).join('\n\n'));
    const gone = { ...app, routes: app.routes.slice(1) };
    pin('check of what is gone', checkMarkdown(checkReport(project, gone)));
  });

  it('promised beside built', () => {
    const found = plans.flatMap((p) => plans.slice(0, 3).map((as) => reconcile(app, p, builtApp(as))));
    pin(
      'reconciled',
      each(
        found,
        () => 'reconciled',
        (f) => f,
      ),
    );
    pin('reconciled in Markdown', found.map(reconcileMarkdown).join('\n\n'));
    pin('reconciled in tables', told(found.map(reconcileTables)));
    const built = builtApp(FULL_PLANS[0]);
    pin(
      'chunks of what was built',
      each(
        plans,
        (p) => p.name,
        (p) => planned(built, p).graph,
      ),
    );
    pin(
      'sheets of what was built',
      each(
        plans,
        (p) => p.name,
        (p) => loadSheet(built, p, DEFAULT_CONDITIONS),
      ),
    );
    for (const snapshot of [app, built]) expect(() => SNAPSHOT.check(snapshot, 'it')).not.toThrow();
  });

  it('refused snapshots', () => {
    const [item] = app.imports;
    const built = builtApp(BASELINE);
    const [file] = built.output!.files;
    const [start] = built.output!.starts;
    const output = (more: Partial<NonNullable<Snapshot['output']>>) => ({
      ...built,
      output: { ...built.output!, ...more },
    });
    const wrong: Snapshot[] = [
      { ...app, modules: [...app.modules, app.modules[0]] },
      { ...app, imports: [{ ...item, from: app.modules.length }] },
      { ...app, imports: [{ ...item, to: -1 }] },
      { ...app, entries: [{ ...app.entries[0], modules: ['gone'] }] },
      output({ files: [{ ...file, modules: [{ module: 999, bytes: 1 }] }] }),
      output({ files: [{ ...file, imports: [{ to: 999, kind: 'static', line: 1 }] }] }),
      output({ starts: [{ ...start, tags: [{ ...start.tags[0], file: 999 }] }] }),
    ];
    const refused = wrong.map((snapshot) => {
      try {
        return String(SNAPSHOT.check(snapshot, 'it'));
      } catch (error) {
        const { title, detail, at } = error as InputError;
        return `${title}: ${detail} (${at})`;
      }
    });
    expect(refused).toMatchInlineSnapshot(`
[
  "Module twice: src/main is listed more than once. (it.modules[26].path)",
  "Import of nothing: it.imports[0].from is 26, but there are 26 modules (numbered from 0). (it.imports[0].from)",
  "Unexpected content: it.imports[0].to must be a number of 0 or more, not -1. (it.imports[0].to)",
  "Entry without a module: There is no module gone. (it.entries[0].modules[0])",
  "A number of nothing: it.output.files[0].modules[0].module is 999, but there are 26 modules (numbered from 0). (it.output.files[0].modules[0].module)",
  "A number of nothing: it.output.files[0].imports[0].to is 999, but there are 1 files (numbered from 0). (it.output.files[0].imports[0].to)",
  "A number of nothing: it.output.starts[0].tags[0].file is 999, but there are 10 files (numbered from 0). (it.output.starts[0].tags[0].file)",
]
`);
    const bases = ['/', '/app/', 'https://cdn.example/app/'];
    for (const base of bases) expect(checkBase(base, 'base')).toBe(base);
    for (const base of [
      '',
      3,
      'app/',
      '/app',
      '//cdn.example/',
      'https://cdn.example',
      '/a b/',
      '/a/../',
      '/?x/',
      'ftp://x/',
    ])
      expect(() => checkBase(base, 'base')).toThrow('Not a base address');
  });

  it('candidates for advice', () => {
    pin(
      'candidates',
      ofPlans((p) => candidatesOf(new AnalysisContext(app, p, DEFAULT_CONDITIONS))),
    );
  });

  it('what is handed over', () => {
    for (const p of plans) {
      for (const { kind, text } of [...handoff(app, p, null).artefacts, ...review(app, p, DEFAULT_CONDITIONS)])
        pin(`${p.name}: ${kind}`, text);
    }
  });
});

it('random apps as they are, and cut by size and number', () => {
  const apps = fc.sample(anyApp(28), { seed: 11, numRuns: 40 });
  const shaped = {
    ...BASELINE,
    decisions: [
      { kind: 'floor' as const, bytes: 1200 },
      { kind: 'ceiling' as const, requests: 3 },
      { kind: 'copy' as const, below: 400 },
    ],
  };
  const told = (tell: (made: Snapshot, plan: Plan) => unknown) =>
    each(
      apps,
      () => 'app',
      (made) => [BASELINE, shaped].map((p) => tell(made, p)),
    );
  pin(
    'random chunks',
    told((made, p) => planned(made, p).graph),
  );
  pin(
    'random inventories',
    told((made, p) => {
      const starts = startsOf(made, p);
      return [
        inventoryOf(made, p, DEFAULT_CONDITIONS),
        findLeaks(made, starts.plan, starts.starts),
        orderNotices(made, p),
      ];
    }),
  );
  pin(
    'random outlines',
    told((made, p) => made.routes.map((r) => outlineOf(made, p, r.pattern))),
  );
  pin(
    'random sheets',
    told((made, p) => loadSheet(made, p, DEFAULT_CONDITIONS)),
  );
  pin(
    'random sizes',
    told((made, p) => planned(made, p).graph.chunks.map((c) => apportion(made, c))),
  );
  pin(
    'random styles',
    told((made, p) => styleConflicts(made, p)),
  );
});

/** A visit with every kind of step. */
const ALL_STEPS: Visit = {
  name: 'all steps',
  landing: '/',
  holds: ['menu'],
  steps: [
    { does: 'scroll', part: 'map', dwellMs: 500, leadMs: 0 },
    { does: 'approach', part: 'dialog', dwellMs: 200, leadMs: 100 },
    { does: 'act', part: 'dialog', dwellMs: 300, leadMs: 250 },
    { does: 'resize', width: 500, height: 900, dwellMs: 400 },
    { does: 'approach', to: '/board', dwellMs: 100, leadMs: 300 },
    { does: 'move', to: '/board', by: 'inside', dwellMs: 0, leadMs: 300, holds: ['legend'] },
    { does: 'deploy', dwellMs: 1000 },
    { does: 'move', to: '/crew/:id', by: 'document', dwellMs: 900, leadMs: 200, holds: ['badge'] },
    { does: 'return', to: '/', awayMs: 3_600_000, deployed: true, dwellMs: 100, holds: [] },
  ],
};

/** The app later on: some code grew, and something heavy came into the start. */
function grown(): Snapshot {
  const at = (path: string) => app.modules.findIndex((m) => m.path === path);
  const modules = app.modules.map((m) =>
    m.path === 'src/home'
      ? {
          ...m,
          bytes: {
            ...m.bytes,
            minified: m.bytes.minified + 9000,
            marginal: m.bytes.marginal + 3000,
            gzip: m.bytes.gzip + 3000,
          },
        }
      : m,
  );
  const [first] = app.imports;
  const more = [
    { ...first, from: at('src/frame'), to: at('tiles/index'), specifier: 'tiles/index', line: 7 },
    { ...first, from: at('src/kit'), to: at('sheets/index'), specifier: 'sheets/index', line: 8 },
  ];
  return { ...app, modules, imports: [...app.imports, ...more] };
}

it('what is predicted of the recorded loads', () => {
  const folder = path.resolve('fidelity/recordings');
  const lines = fs
    .readdirSync(folder)
    .sort()
    .map((name) => {
      const recorded = JSON.parse(fs.readFileSync(path.join(folder, name), 'utf8')) as unknown;
      return told(playCase(parseLoadCase(recorded)));
    });
  expect(lines.length).toBeGreaterThan(80);
  pin('recorded loads', lines.join('\n'));
});

it('what the simulator says of any page whatever', () => {
  const seeds = Array.from({ length: 300 }, (_, i) => i + 1);
  const loads = seeds.map((seed) => told(simulate(anyProgram(seed), anyConditions(seed))));
  pin('any pages', loads.join('\n'));
  const visits = seeds.slice(0, 150).map((seed) => told(simulateVisit(anyVisit(seed), anyConditions(seed))));
  pin('any visits', visits.join('\n'));
});
