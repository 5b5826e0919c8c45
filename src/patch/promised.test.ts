import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import { advise } from '../core/advise/advise.ts';
import type { Finding } from '../core/advise/types.ts';
import { planWith } from '../core/plan/decisions.ts';
import { BASELINE, type Decision, type Plan } from '../core/plan/types.ts';
import { predict } from '../core/predict/predict.ts';
import { shipped } from '../core/ship/shipped.ts';
import { DEFAULT_CONDITIONS } from '../core/sim/conditions.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { finish } from '../core/steps.ts';
import { modelOf } from '../core/visitors/model.ts';
import { readSource } from '../reader/read-source.ts';
import { folderOf, removeFolders, SAMPLE } from '../test-support/folders.ts';
import { reactApp } from '../test-support/react-app.ts';
import { sourcePatch } from './patch.ts';

afterAll(removeFolders);

/**
 * An edit adds a few bytes of its own, packets fall otherwise, and a frame may be painted before or after what is drawn next: so far may a time
 * be off, in ms.
 */
const NEAR_MS = 40;
const NEAR_BYTES = 400;

function figuresOf(app: Snapshot, plan: Plan) {
  return app.routes.map(({ pattern }) => {
    const { milestones, readout } = predict(shipped(app, plan).snapshot, plan, pattern, DEFAULT_CONDITIONS).reading;
    return { pattern, ...milestones, start: readout.startBytes };
  });
}

/** Takes a finding into the code, reads it again, and lays what comes of it beside what was promised. */
function kept(root: string, snapshot: Snapshot, sources: Readonly<Record<string, string>>, finding: Finding): boolean {
  const plan = planWith(BASELINE, finding.remedy);
  const { diff, steps } = sourcePatch(snapshot, plan, sources);
  if (diff === '' || steps.some((s) => s.state === 'by hand')) {
    // It says why the rest is work by hand.
    for (const s of steps) if (s.state === 'by hand') expect(s.what).not.toBe('');
    return false;
  }
  const folder = folderOf({});
  fs.cpSync(root, folder, { recursive: true });
  execFileSync('git', ['apply', '-'], { cwd: folder, input: diff });
  const again = readSource(folder).snapshot;
  // What is in the code is read off it; a trigger that was written into it isn't, and stays with the plan.
  const written = (d: Decision, at: number) =>
    d.kind === 'trigger' && steps.some((s) => s.decision === at && s.state === 'edited');
  const done = new Set(steps.map((s) => s.decision));
  const left: Plan = { ...plan, decisions: plan.decisions.filter((d, at) => !done.has(at) || written(d, at)) };
  const [promised, came] = [figuresOf(snapshot, plan), figuresOf(again, left)];
  for (const [at, was] of promised.entries()) {
    const is = came[at];
    expect({ id: finding.id, pattern: is.pattern }).toEqual({ id: finding.id, pattern: was.pattern });
    for (const milestone of ['firstContent', 'firstScreenComplete', 'interactive'] as const)
      if (Math.abs(is[milestone] - was[milestone]) > NEAR_MS)
        throw new Error(
          `${finding.id} on ${was.pattern}: ${milestone} ${was[milestone]} was promised, ${is[milestone]} came`,
        );
    expect(Math.abs(is.start - was.start)).toBeLessThan(NEAR_BYTES);
  }
  return true;
}

function findingsOf(snapshot: Snapshot): Finding[] {
  return finish(advise(snapshot, BASELINE, modelOf(snapshot).model, DEFAULT_CONDITIONS)).findings;
}

it('gives the promised figures for every finding of the sample that can be edited in', () => {
  const { snapshot, sources } = readSource(SAMPLE);
  const findings = findingsOf(snapshot);
  expect(findings.length).toBeGreaterThan(10);
  const edited = findings.filter((f) => kept(SAMPLE, snapshot, sources, f));
  expect(edited.length).toBeGreaterThan(4);
});

it.each([1, 2, 3, 4, 5, 6])('gives the promised figures for every finding of a generated app, %d', (seed) => {
  const root = folderOf(reactApp(seed));
  const { snapshot, sources } = readSource(root);
  expect(snapshot.unresolved).toEqual([]);
  expect(snapshot.routes.length).toBeGreaterThan(1);
  const findings = findingsOf(snapshot);
  expect(findings.length).toBeGreaterThan(0);
  expect(findings.filter((f) => kept(root, snapshot, sources, f)).length).toBeGreaterThan(0);
});
