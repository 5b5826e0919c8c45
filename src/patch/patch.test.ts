import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { planned } from '../core/chunks/planned.ts';
import type { Decision, Plan } from '../core/plan/types.ts';
import { seeded } from '../core/sim/random.ts';
import { graphIndex, importKey } from '../core/snapshot/graph-index.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { readSource } from '../reader/read-source.ts';
import { folderOf, removeFolders, SAMPLE } from '../test-support/folders.ts';
import { sourcePatch } from './patch.ts';

afterAll(removeFolders);

const planOf = (...decisions: Decision[]): Plan => ({ name: 'Plan', description: '', decisions });
const detach = (key: string): Decision => ({ kind: 'detach', import: key });
const join = (key: string): Decision => ({ kind: 'join', import: key });

/** The chunk graph as what is in which chunk, whatever their ids. */
function graphWords(snapshot: Snapshot, plan: Plan): string[] {
  const graph = planned(snapshot, plan).graph;
  const names = (of: Iterable<number>) => [...of].map((m) => snapshot.modules[m].path).sort();
  const at = new Map(graph.chunks.map((c, i) => [i, names(c.modules).join(' ')]));
  return graph.roots
    .map(
      (r) =>
        `${r.kind} ${names(r.target).join(' ')}: ${r.group
          .map((c) => at.get(c))
          .sort()
          .join(' | ')}`,
    )
    .sort();
}

/** Applies a patch with git to a copy of a folder and reads it again. */
function applied(root: string, diff: string): { folder: string; again: Snapshot } {
  const folder = folderOf({});
  fs.cpSync(root, folder, { recursive: true, filter: (from) => !from.includes('node_modules') });
  execFileSync('git', ['apply', '--whitespace=error-all', '-'], { cwd: folder, input: diff });
  return { folder, again: readSource(folder).snapshot };
}

/** What the compiler says of an app; empty if all is right. */
function typeErrors(folder: string): string {
  const compiler = path.resolve('node_modules/typescript/bin/tsc');
  return spawnSync(process.execPath, [compiler, '-p', '.'], { cwd: folder, encoding: 'utf8' }).stdout;
}

describe('a patch of the sample', () => {
  const { snapshot, sources } = readSource(SAMPLE);

  it.each<[string, Decision[], number]>([
    [
      'the planted mistakes',
      [
        detach('src/timetable/departure-board.tsx::../tickets/ticket-dialog'),
        detach('src/app/frame.tsx::../harbour/berth-finder'),
        detach('src/app/routes.tsx::../sailing/sailing-page'),
        join('src/timetable/departure-board.tsx::./line-badge'),
        join('src/timetable/departure-board.tsx::./berth-chip'),
        join('src/timetable/departure-board.tsx::./weather-strip'),
        join('src/timetable/departure-board.tsx::./tide-note'),
        join('src/home/home-page.tsx::./hero'),
        join('src/app/routes.tsx::../crew/crew-area'),
        join('src/crew/crew-area.tsx::./duty-section'),
      ],
      10,
    ],
    [
      'parts behind actions, and a package in a handler',
      [
        detach('src/timetable/timetable-page.tsx::../fares/fare-calculator'),
        detach('src/tickets/ticket-dialog.tsx::@saltmarsh/paperkit'),
        detach('src/app/routes.tsx::../home/home-page'),
        { kind: 'trigger', splitPoint: 'src/tide/tide-chart.tsx', fetch: { on: 'idle' } },
      ],
      4,
    ],
  ])('gives the planned chunk graph: %s', (_, decisions, steps) => {
    const plan = planOf(...decisions);
    const { diff, steps: made } = sourcePatch(snapshot, plan, sources);
    expect(made.filter((s) => s.state !== 'edited')).toEqual([]);
    expect(made).toHaveLength(steps);
    const { again, folder } = applied(SAMPLE, diff);
    expect(again.failed).toEqual(snapshot.failed);
    expect(graphWords(again, planOf())).toEqual(graphWords(snapshot, plan));
    expect(typeErrors(folder)).toBe('');
  });

  it.each([1, 2, 3, 4, 5, 6])('gives the planned chunk graph and right types, drawn plan %d', (seed) => {
    const next = seeded(seed);
    const own = snapshot.imports.filter((i) => snapshot.modules[i.from].path.startsWith('src/'));
    // Several imports of a few files, so that edits meet.
    const files = new Set(Array.from({ length: 6 }, () => own[Math.floor(next() * own.length)].from));
    const decisions = own
      .filter((i) => files.has(i.from) && next() < 0.6)
      .map((i): Decision => ({ kind: i.kind === 'static' ? 'detach' : 'join', import: importKey(snapshot, i) }));
    const { diff, steps } = sourcePatch(snapshot, planOf(...decisions), sources);
    const edited = decisions.filter((_, at) => steps.some((s) => s.decision === at && s.state === 'edited'));
    expect(edited.length).toBeGreaterThan(0);
    const { again, folder } = applied(SAMPLE, diff);
    expect(graphWords(again, planOf())).toEqual(graphWords(snapshot, planOf(...edited)));
    expect(typeErrors(folder)).toBe('');
  });

  it('edits every import that it says it can, one by one, to the planned chunk graph; the others say why not', () => {
    const index = graphIndex(snapshot);
    expect(index.importAt.size).toBeGreaterThan(100);
    let edited = 0;
    let again = 0;
    for (const item of snapshot.imports) {
      if (!sources[snapshot.modules[item.from].path] || !snapshot.modules[item.from].path.startsWith('src/')) continue;
      const key = importKey(snapshot, item);
      const plan = planOf({ kind: item.kind === 'static' ? 'detach' : 'join', import: key });
      const { diff, steps } = sourcePatch(snapshot, plan, sources);
      expect(steps).toHaveLength(1);
      const [step] = steps;
      if (step.state !== 'edited') {
        expect(step).toMatchObject({
          state: 'by hand',
          what: expect.stringMatching(/\w{3,}/),
          recipe: expect.stringContaining('import('),
        });
        expect(diff).toBe('');
        continue;
      }
      edited++;
      // Reading again takes a while: a fifth of them.
      if (edited % 5 !== 0) continue;
      const read = applied(SAMPLE, diff);
      expect({ key, graph: graphWords(read.again, planOf()) }).toEqual({ key, graph: graphWords(snapshot, plan) });
      again++;
    }
    expect(again).toBeGreaterThan(6);
    expect(edited).toBeGreaterThan(35);
  });

  it('refuses files that changed since they were read, one by one', () => {
    const plan = planOf(
      detach('src/app/frame.tsx::../harbour/berth-finder'),
      detach('src/app/routes.tsx::../sailing/sailing-page'),
      detach('src/timetable/departure-board.tsx::../tickets/ticket-dialog'),
    );
    const now = (at: string) => {
      if (at === 'src/app/routes.tsx') return null;
      return at === 'src/timetable/departure-board.tsx' ? `${sources[at]}\n` : sources[at];
    };
    const { files, steps } = sourcePatch(snapshot, plan, sources, now);
    expect(steps.map(({ path, state, what }) => ({ path, state, what }))).toEqual([
      { path: 'src/app/frame.tsx', state: 'edited', what: expect.stringContaining('src/app/masthead.tsx') },
      { path: 'src/app/routes.tsx', state: 'refused', what: expect.stringContaining('no longer there') },
      {
        path: 'src/timetable/departure-board.tsx',
        state: 'refused',
        what: expect.stringContaining('has changed since'),
      },
    ]);
    expect(files.map((f) => f.path)).toEqual(['src/app/frame.tsx', 'src/app/masthead.tsx']);
    expect(sourcePatch(snapshot, plan, {}).steps[0]).toMatchObject({
      state: 'by hand',
      what: expect.stringContaining('isn’t kept'),
    });
  });

  it('undoes itself: what was detached joins back to the same graph', () => {
    const key = 'src/timetable/departure-board.tsx::../tickets/ticket-dialog';
    const { diff } = sourcePatch(snapshot, planOf(detach(key)), sources);
    const { folder } = applied(SAMPLE, diff);
    const second = readSource(folder);
    const back = sourcePatch(second.snapshot, planOf(join(key)), second.sources);
    const { again } = applied(folder, back.diff);
    expect(graphWords(again, planOf())).toEqual(graphWords(snapshot, planOf()));
    expect(fs.existsSync(path.join(folder, 'src/timetable/departure-board.tsx'))).toBe(true);
  });
});
