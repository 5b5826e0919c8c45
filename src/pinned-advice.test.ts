import { advise, candidatesOf } from './core/advise/advise.ts';
import { AnalysisContext } from './core/advise/detect/analysis-context.ts';
import { Scorer } from './core/advise/score.ts';
import type { CandidateFinding } from './core/advise/types.ts';
import { choose } from './core/choose/choose.ts';
import type { Wanted } from './core/choose/types.ts';
import { BASELINE, type Plan } from './core/plan/types.ts';
import { shipped } from './core/ship/shipped.ts';
import { DEFAULT_CONDITIONS } from './core/sim/conditions.ts';
import type { Snapshot } from './core/snapshot/types.ts';
import { modelOf } from './core/visitors/model.ts';
import { FINDING_KINDS } from './core/vocabulary/findings.ts';
import { readSource } from './reader/read-source.ts';
import { SAMPLE } from './test-support/folders.ts';
import { FULL_PLANS, fullApp } from './test-support/full-app.ts';
import { mistakenApp } from './test-support/mistaken-app.ts';
import { pin, told, traced } from './test-support/pin.ts';
import { part, route, sketch } from './test-support/snapshots.ts';

/** What is advised and chosen for the small app that has one of nearly everything, kept as it is like the stages before it (`pinned.test.ts`). */
const app = fullApp();
const { model } = modelOf(app);
const LIMITS = {
  ...{ firstContentMs: 200, interactiveMs: 1000, changeMs: 5, wasteBytes: 60_000, spareDataSavers: true },
};
const usual = { name: 'usual', conditions: DEFAULT_CONDITIONS, share: 3 };
const again = { name: 'again', conditions: { ...DEFAULT_CONDITIONS, cache: 'returning' as const }, share: 1 };

it('what is advised', () => pin('advice', told(traced(advise(app, BASELINE, model, DEFAULT_CONDITIONS)))));

it.each<[Wanted['about'], Wanted['aim'], number]>([
  ['hints', 'mean', 2],
  ['splits', 'worst', 1],
])('which %s are chosen, best in the %s', (about, aim, changes) => {
  const circumstances = aim === 'mean' ? [usual] : [usual, again];
  const wanted = { about, aim, limits: { ...LIMITS, changes } };
  pin(`${about} for the ${aim}`, told(traced(choose(app, BASELINE, model, circumstances, wanted))));
});

/** All that looks worth changing in an app under a plan, one a line: words, evidence, ways. */
function candidateLines(of: Snapshot, plan: Plan): string[] {
  const score = new Scorer(of, modelOf(of).model, DEFAULT_CONDITIONS).score(plan);
  const analysis = new AnalysisContext(shipped(of, plan).snapshot, plan, DEFAULT_CONDITIONS);
  return candidatesOf(analysis, score).map(told);
}

describe('all that looks worth changing, before it is measured', () => {
  it('in the app with one of nearly everything, under plans of every kind', () => {
    const lines = [BASELINE, ...FULL_PLANS].map((plan) => candidateLines(app, plan).join('\n'));
    expect(lines[0].split('\n').length).toBeGreaterThan(8);
    pin('candidates', lines.join('\n\n'));
  });

  it('in made-up apps with mistakes', () => {
    const all = Array.from({ length: 12 }, (_, seed) => candidateLines(mistakenApp(seed + 1).snapshot, BASELINE));
    expect(Math.min(...all.map((lines) => lines.length))).toBeGreaterThan(0);
    pin('candidates with mistakes', all.map((lines) => lines.join('\n')).join('\n\n'));
  });

  it('in the sample', () => {
    const lines = candidateLines(readSource(SAMPLE).snapshot, BASELINE);
    expect(lines.length).toBeGreaterThan(20);
    pin('candidates of the sample', lines.join('\n'));
  });

  it('in an app with what the others lack, so that all kinds of findings are there', () => {
    const sheet = { kind: 'style' as const, bytes: 3000 };
    const odd = sketch(
      {
        main: { imports: ['legend.css', '~home', '~other'], bytes: 60_000 },
        'legend.css': sheet,
        home: { imports: ['~panel'] },
        panel: { imports: ['~chart'], bytes: 3000 },
        chart: { imports: ['~legend'], bytes: 3000 },
        legend: { bytes: 3000 },
        other: {},
      },
      {
        routes: [
          route('/', 'home', { parts: ['panel', 'chart', 'legend'].map((id) => part(id, id)) }),
          route('/other', 'other'),
        ],
        sheetUses: [{ module: 'legend.css', by: ['legend'] }],
        scripts: [
          {
            ...{ id: 'chat', name: 'chat', address: 'https://talk.example/c.js', bytes: 9000, serverMs: 10 },
            ...{ evaluationMs: 5, placement: 'end of body', evidence: { path: 'index.html', line: 4 } },
          },
        ],
      },
    );
    const lines = candidateLines(odd, BASELINE);
    pin('candidates of odd kinds', lines.join('\n'));
    const elsewhere = [app, readSource(SAMPLE).snapshot].flatMap((of) =>
      [BASELINE, ...(of === app ? FULL_PLANS : [])].flatMap((plan) => candidateLines(of, plan)),
    );
    const kinds = new Set([...lines, ...elsewhere].map((line) => (JSON.parse(line) as CandidateFinding).kind));
    expect([...kinds].sort()).toEqual([...FINDING_KINDS].sort());
  });
});
