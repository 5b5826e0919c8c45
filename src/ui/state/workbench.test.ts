import path from 'node:path';
import { NO_AMENDMENTS } from '../../core/amend/types.ts';
import { BASELINE } from '../../core/plan/types.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { route, sketch } from '../../test-support/snapshots.ts';
import { until } from '../../test-support/until.ts';
import type { AppView } from '../../worker/views.ts';
import { storedPlan, useWorkbench } from './workbench.ts';

/** The interface's state over the real route handlers and a real database; only the wire between them is left out. */
process.env.YOKELINE_DATA = path.join(folderOf({}), 'data');
const { store } = await import('../../server/context.ts');
const { addProject, projectView } = await import('../../server/projects.ts');
const plansRoute = await import('../../app/api/plans/[id]/route.ts');
const projectPlansRoute = await import('../../app/api/projects/[id]/plans/route.ts');
const amendmentsRoute = await import('../../app/api/projects/[id]/amendments/route.ts');
const projectsRoute = await import('../../app/api/projects/route.ts');
const projectRoute = await import('../../app/api/projects/[id]/route.ts');
const { api } = await import('./api.ts');

let reachable = true;
let calls = 0;

globalThis.fetch = (async (address: string, init: RequestInit) => {
  calls++;
  if (!reachable) throw new TypeError('fetch failed');
  const request = new Request(`http://127.0.0.1:4780${address}`, {
    ...init,
    headers: { ...init.headers, host: '127.0.0.1:4780' },
  });
  const [, , kind, id, rest] = address.split('/');
  const context = { params: Promise.resolve({ id }) };
  if (kind === 'plans') return plansRoute[init.method as 'GET' | 'PUT' | 'DELETE'](request, context);
  if (rest === 'amendments') return amendmentsRoute.PUT(request, context);
  if (rest === 'plans') return projectPlansRoute.POST(request, context);
  if (id) return projectRoute.GET(request, context);
  return projectsRoute[init.method as 'GET' | 'POST'](request);
}) as typeof fetch;

const snapshot = sketch(
  { main: { imports: ['a', 'b'] }, a: {}, b: {} },
  { routes: [route('/', 'a'), route('/b', 'b')] },
);
const app: AppView = {
  name: 'sketch',
  origin: 'source',
  modules: 3,
  routes: snapshot.routes,
  realms: ['site'],
  base: '/',
  splittable: true,
  imports: 0,
  lost: 0,
  missing: [],
  workspace: null,
  unknownSizes: [],
  failed: 0,
  stale: [],
  unproposed: [],
};
const state = () => useWorkbench.getState();
const told = () =>
  state()
    .notices.map(({ words }) => words)
    .join('\n');
const detach = (name: string) => ({ kind: 'detach' as const, import: `main::${name}` });

/** Waits until everything is saved, or can't be. */
async function settled(): Promise<void> {
  await until(() => state().saving !== 'saving' && state().savingAmendments !== 'saving');
}

async function opened(): Promise<string> {
  const id = addProject(store(), snapshot, []);
  state().open(await api.project(id), app, {});
  return id;
}

beforeEach(() => {
  reachable = true;
});
afterAll(() => {
  store().close();
  removeFolders();
});

describe('a decision on the baseline', () => {
  it('begins a plan, can be undone there, and leaves the baseline as built', async () => {
    await opened();
    state().choosePlan(null);
    state().decide([detach('a')]);
    await until(() => state().planId !== null);
    expect(storedPlan(state())).toMatchObject({ name: 'Plan', decisions: [detach('a')] });
    await until(() => told() !== '');
    expect(told()).toBe('“Plan” begins with it: the baseline stays as built.');
    state().undo();
    expect(storedPlan(state())?.decisions).toEqual([]);
    state().redo();
    await settled();
    expect((await api.project(state().project!.id)).plans.map((p) => p.decisions)).toEqual([[], [detach('a')]]);
  });

  it('takes what is decided meanwhile along, and another one begins another plan', async () => {
    await opened();
    state().choosePlan(null);
    state().decide([detach('a')]);
    state().decide([detach('b')]);
    await until(() => storedPlan(state())?.decisions.length === 2);
    state().choosePlan(null);
    state().withdraw(['detach main::a'], 'nothing to take back');
    state().decide([detach('b')]);
    await until(() => state().planId !== null);
    expect(state().project?.plans.map((p) => [p.name, p.decisions.length])).toEqual([
      ['First plan', 0],
      ['Plan', 2],
      ['Plan 2', 1],
    ]);
  });

  it('says so where no plan can be made, and decides nothing', async () => {
    await opened();
    state().choosePlan(null);
    reachable = false;
    state().decide([detach('a')]);
    await until(() => told() !== '');
    expect([state().planId, state().project?.plans.length]).toEqual([null, 1]);
    reachable = true;
    state().decide([detach('a')]);
    await until(() => state().planId !== null);
  });
});

describe('the workbench', () => {
  it('saves each decision as it is made', async () => {
    const id = await opened();
    state().decide([detach('a')]);
    await settled();
    expect(state().saving).toBe('saved');
    expect(projectView(store(), id).plans[0]).toMatchObject({ version: 2, decisions: [detach('a')] });
    expect(state().done.map((s) => s.words)).toEqual(['detach a from main']);
  });

  it('undoes and redoes by steps with names, and saves that too', async () => {
    const id = await opened();
    state().decide([detach('a')]);
    state().decide([detach('b')], 'the second');
    state().undo();
    expect(storedPlan(state())?.decisions).toEqual([detach('a')]);
    expect(state().undone.map((s) => s.words)).toEqual(['the second']);
    state().redo();
    state().undo();
    state().undo();
    state().undo();
    await settled();
    expect(projectView(store(), id).plans[0].decisions).toEqual([]);
    state().decide([detach('b')]);
    expect(state().undone).toEqual([]);
    await settled();
    expect(projectView(store(), id).plans[0].decisions).toEqual([detach('b')]);
  });

  it('sends quick changes together, the last one winning', async () => {
    const id = await opened();
    const before = calls;
    for (let i = 0; i < 10; i++) state().decide([{ kind: 'trigger', splitPoint: 'a', fetch: { on: 'after', ms: i } }]);
    await settled();
    expect(calls - before).toBeLessThanOrEqual(3);
    expect(projectView(store(), id).plans[0].decisions).toEqual([
      { kind: 'trigger', splitPoint: 'a', fetch: { on: 'after', ms: 9 } },
    ]);
  });

  it('withdraws decisions, and leaves the baseline alone', async () => {
    await opened();
    state().decide([detach('a'), detach('b')]);
    state().withdraw(['import main::a'], 'a again');
    expect(storedPlan(state())?.decisions).toEqual([detach('b')]);
    await settled();
    state().choosePlan(null);
    state().decide([detach('a')]);
    state().undo();
    expect(storedPlan(state())).toBeNull();
    expect(BASELINE.decisions).toEqual([]);
  });

  it('takes a proposed change with all that it decides and withdraws, in one step', async () => {
    await opened();
    state().decide([detach('a')]);
    state().take({ words: 'rather b', decisions: [detach('b')], withdraw: ['import main::a'] });
    expect(storedPlan(state())?.decisions).toEqual([detach('b')]);
    expect(state().done.map((s) => s.words)).toEqual(['detach a from main', 'rather b']);
    state().undo();
    expect(storedPlan(state())?.decisions).toEqual([detach('a')]);
  });

  it('keeps a change that could not be saved, and saves it on the next try', async () => {
    const id = await opened();
    reachable = false;
    state().decide([detach('a')]);
    await settled();
    expect(state().saving).toBe('failed');
    expect(storedPlan(state())?.decisions).toEqual([detach('a')]);
    reachable = true;
    await state().saveNow();
    expect(projectView(store(), id).plans[0].decisions).toEqual([detach('a')]);
  });

  it('saves each plan that was changed, also after another was opened or while the server was away', async () => {
    const id = await opened();
    const first = state().planId!;
    await state().addPlan('Second', []);
    const second = state().planId!;
    state().choosePlan(first);
    reachable = false;
    state().decide([detach('a')]);
    state().decide([detach('b')]);
    state().choosePlan(second);
    state().decide([detach('b')]);
    await settled();
    expect(state().saving).toBe('failed');
    state().choosePlan(first);
    expect(storedPlan(state())?.decisions).toEqual([detach('a'), detach('b')]);
    state().choosePlan(second);
    reachable = true;
    await state().saveNow();
    expect(state().saving).toBe('saved');
    expect(projectView(store(), id).plans.map((p) => [p.name, p.decisions])).toEqual([
      ['First plan', [detach('a'), detach('b')]],
      ['Second', [detach('b')]],
    ]);
  });

  it('notices a change made elsewhere: theirs can be taken', async () => {
    await opened();
    const mine = storedPlan(state())!;
    await api.savePlan(mine.id, mine.version, { decisions: [detach('b')] });
    state().decide([detach('a')]);
    await settled();
    expect(state().conflict).toMatchObject({ version: 2, decisions: [detach('b')] });
    state().takeTheirs();
    expect(storedPlan(state())?.decisions).toEqual([detach('b')]);
    state().decide([detach('a')]);
    await settled();
    expect(state().saving).toBe('saved');
  });

  it('notices it of a plan that isn’t open any more, and asks once that is opened', async () => {
    await opened();
    const first = storedPlan(state())!;
    await state().addPlan('Second', []);
    const second = state().planId!;
    state().choosePlan(first.id);
    await api.savePlan(first.id, first.version, { decisions: [detach('b')] });
    state().decide([detach('a')]);
    state().choosePlan(second);
    await settled();
    expect(state()).toMatchObject({ saving: 'failed', conflict: null });
    expect(told()).toContain('“First plan” was changed elsewhere too');
    state().choosePlan(first.id);
    await until(() => state().conflict !== null);
    expect(state().conflict).toMatchObject({ decisions: [detach('b')] });
    expect(storedPlan(state())?.decisions).toEqual([detach('a')]);
  });

  it('takes up what a page before never saved, and doesn’t write it over theirs, wherever one looks meanwhile', async () => {
    const kept = new Map<string, string>();
    const storage = {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    };
    Object.defineProperty(globalThis, 'localStorage', { value: storage, configurable: true });
    try {
      const id = await opened();
      const { id: first, version } = storedPlan(state())!;
      await state().addPlan('Second', []);
      const second = state().planId!;
      kept.set(`yokeline:unsaved:${first}`, JSON.stringify({ version, decisions: [detach('a')] }));
      await api.savePlan(first, version, { decisions: [detach('b')] });
      useWorkbench.setState({ notices: [] });
      state().open(await api.project(id), app, { planId: first, route: '/gone' });
      expect(told()).toMatch(/no route \/gone.*\n.*never saved/);
      expect(state().conflict).toMatchObject({ decisions: [detach('b')] });
      state().choosePlan(second);
      state().choosePlan(first);
      await until(() => state().conflict !== null);
      expect(state().conflict).toMatchObject({ decisions: [detach('b')] });
      expect(storedPlan(state())?.decisions).toEqual([detach('a')]);
      expect((await api.project(id)).plans.map((p) => p.decisions)).toEqual([[detach('b')], []]);
      state().takeTheirs();
      expect(storedPlan(state())?.decisions).toEqual([detach('b')]);
      expect([state().saving, kept.size]).toEqual(['saved', 0]);
    } finally {
      Reflect.deleteProperty(globalThis, 'localStorage');
    }
  });

  it('or mine is kept as a copy, and nothing is lost', async () => {
    const id = await opened();
    const mine = storedPlan(state())!;
    await api.savePlan(mine.id, mine.version, { decisions: [detach('b')] });
    state().decide([detach('a')]);
    await settled();
    await state().keepMine();
    const plans = projectView(store(), id).plans.map((p) => [p.name, p.decisions]);
    expect(plans).toEqual([
      ['First plan', [detach('b')]],
      ['First plan, my copy', [detach('a')]],
    ]);
    expect(storedPlan(state())?.name).toBe('First plan, my copy');
    expect(state().conflict).toBeNull();
  });

  it('saves corrections to what was read, and undoes them in one row with decisions', async () => {
    const id = await opened();
    const keep = (...names: string[]) => ({ ...NO_AMENDMENTS, keep: names });
    state().amend(keep('a-*'), 'keep a-*');
    state().decide([detach('a')]);
    state().amend(keep('a-*', 'b-*'), 'keep b-*');
    await settled();
    expect(projectView(store(), id).amended).toEqual({ version: 3, amendments: keep('a-*', 'b-*') });
    state().undo();
    state().undo();
    await settled();
    expect(projectView(store(), id).amended.amendments).toEqual(keep('a-*'));
    expect(projectView(store(), id).plans[0].decisions).toEqual([]);
    state().choosePlan(null);
    expect(state().done.map((s) => s.words)).toEqual(['keep a-*']);
    state().undo();
    await settled();
    expect(projectView(store(), id).amended.amendments).toEqual(NO_AMENDMENTS);
  });

  it('shows corrections that were made elsewhere, and never writes over them', async () => {
    const id = await opened();
    const theirs = { ...NO_AMENDMENTS, base: '/theirs/' };
    await api.saveAmendments(id, { version: 1, amendments: theirs });
    state().amend({ ...NO_AMENDMENTS, base: '/mine/' }, 'base');
    await settled();
    expect(state().project?.amended).toEqual({ version: 2, amendments: theirs });
    expect(told()).toContain('another tab');
    expect(state().done).toEqual([]);
    reachable = false;
    state().amend({ ...theirs, confirmed: true }, 'confirm');
    await settled();
    expect(state().savingAmendments).toBe('failed');
    reachable = true;
    await state().saveNow();
    expect(projectView(store(), id).amended).toEqual({ version: 3, amendments: { ...theirs, confirmed: true } });
  });

  it('makes plans, and says why it can’t make one', async () => {
    await opened();
    await state().addPlan('Another', [detach('a')]);
    expect(storedPlan(state())).toMatchObject({ name: 'Another', decisions: [detach('a')] });
    await expect(state().addPlan('Another', [])).rejects.toThrow('choose another name');
    const { planId } = state();
    await api.removePlan(planId!);
    await expect(api.plan(planId!)).rejects.toMatchObject({ status: 404, title: 'No such plan' });
  });

  it('names, describes and removes plans, with what was just decided in them', async () => {
    const id = await opened();
    state().decide([detach('a')]);
    await state().describePlan({ name: 'Lean', description: 'The dialog waits.' });
    expect(projectView(store(), id).plans).toMatchObject([
      { name: 'Lean', description: 'The dialog waits.', decisions: [detach('a')] },
    ]);
    await state().addPlan('Other', []);
    await expect(state().describePlan({ name: 'Lean' })).rejects.toThrow('choose another name');
    await state().removePlan();
    expect(storedPlan(state())?.name).toBe('Lean');
    await state().removePlan();
    expect(state().planId).toBeNull();
    expect(projectView(store(), id).plans).toEqual([]);
  });

  it('opens with what the address wishes, as far as that exists', async () => {
    const id = await opened();
    const project = await api.project(id);
    state().open(project, app, {
      planId: 'baseline',
      route: '/b',
      linkId: 'home-line',
      deviceId: 'none',
      cache: 'returning',
    });
    expect(state()).toMatchObject({
      planId: null,
      route: '/b',
      linkId: 'home-line',
      deviceId: 'everyday-phone',
      cache: 'returning',
    });
    state().open(project, app, { planId: 'gone', route: '/gone' });
    expect(state()).toMatchObject({ planId: project.plans[0].id, route: '/' });
  });

  it('brings project files, and refuses broken ones with the place', async () => {
    const text = JSON.stringify({ format: 'yokeline-project', version: 1, snapshot, plans: [] });
    const { id } = await api.importProject('a.json', text);
    expect((await api.project(id)).plans).toHaveLength(1);
    await expect(api.importProject('a.json', text.slice(0, 40))).rejects.toThrow('a.json:1:');
    expect((await api.projects()).map((p) => p.id)).toContain(id);
  });

  it('lets nothing of mine go before the copy of it is there', async () => {
    const id = await opened();
    const plan = storedPlan(state())!;
    await api.savePlan(plan.id, plan.version, { decisions: [detach('b')] });
    state().decide([detach('a')]);
    await until(() => state().conflict !== null);
    reachable = false;
    await expect(state().keepMine()).rejects.toThrow();
    expect(storedPlan(state())?.decisions).toEqual([detach('a')]);
    expect(state().conflict).not.toBeNull();
    reachable = true;
    // What is decided while the copy is on its way belongs to it as well.
    const copying = state().keepMine();
    state().decide([detach('b')]);
    await copying;
    await settled();
    expect(storedPlan(state())).toMatchObject({ decisions: [detach('a'), detach('b')] });
    const saved = projectView(store(), id).plans;
    expect(saved.find((p) => p.id === plan.id)?.decisions).toEqual([detach('b')]);
    expect(saved.find((p) => p.name.endsWith('my copy'))?.decisions).toEqual([detach('a'), detach('b')]);
  });

  it('renames a plan as a step of its own, which undo takes back before what was decided earlier', async () => {
    const id = await opened();
    state().decide([detach('a')]);
    const before = storedPlan(state())!.name;
    await state().describePlan({ name: 'Another' });
    expect(state().done.map((s) => s.words)).toEqual(['detach a from main', 'rename to “Another”']);
    const name = () => projectView(store(), id).plans[0].name;
    expect(name()).toBe('Another');
    state().undo();
    await until(() => storedPlan(state())!.name === before);
    expect(name()).toBe(before);
    expect(storedPlan(state())!.decisions).toEqual([detach('a')]);
    state().redo();
    await until(() => storedPlan(state())!.name === 'Another');
    expect(name()).toBe('Another');
  });

  it('says so where the address names a route that the app doesn’t have', async () => {
    const id = addProject(store(), snapshot, []);
    state().open(await api.project(id), app, { route: '/gone' });
    expect(state().route).toBe('/');
    expect(told()).toContain('has no route /gone');
    useWorkbench.setState({ notices: [] });
    state().open(await api.project(id), app, { route: '/b' });
    expect(state()).toMatchObject({ route: '/b', notices: [] });
  });
});
