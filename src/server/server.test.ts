import path from 'node:path';
import { NO_AMENDMENTS } from '../core/amend/types.ts';
import { openStore, type Store } from '../store/database.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { route, sketch } from '../test-support/snapshots.ts';
import { guard } from './guard.ts';
import { handle } from './handle.ts';
import { NewPlanInput, PlanChangeInput, readInput } from './inputs.ts';
import { keyCookie } from './key.ts';
import { takeTurn } from './limiter.ts';
import { demandKey } from './listening.ts';
import { changePlan, createPlan, planOf, removePlan } from './plans.ts';
import { Problem } from './problem.ts';
import { problemOf } from './problems.ts';
import { addProject, allProjects, changeAmendments, importProject, projectView, snapshotBody } from './projects.ts';
import { securityHeaders } from './security-headers.ts';

const migrations = path.resolve('src/store/migrations');
const snapshot = sketch({ main: { imports: ['a'] }, a: {} }, { name: 'tiny-app', routes: [route('/', 'a')] });

function fresh(): { store: Store; file: string; id: string; planId: string } {
  const file = path.join(folderOf({}), 'deep', 'data.sqlite');
  const store = openStore(file, migrations);
  const id = addProject(store, snapshot, []);
  return { store, file, id, planId: projectView(store, id).plans[0].id };
}

afterAll(removeFolders);

describe('projects', () => {
  it('are kept over a restart, with snapshot and plans', () => {
    const { store, file, id, planId } = fresh();
    changePlan(store, planId, { version: 1, decisions: [{ kind: 'detach', import: 'main::a' }] });
    store.close();
    const again = openStore(file, migrations);
    expect(allProjects(again).map((p) => p.name)).toEqual(['Tiny App']);
    expect(projectView(again, id).plans).toMatchObject([
      { name: 'First plan', version: 2, decisions: [{ kind: 'detach', import: 'main::a' }] },
    ]);
    expect(JSON.parse(snapshotBody(again, id).toString())).toEqual(snapshot);
    again.close();
  });

  it('are imported whole or not at all', () => {
    const { store } = fresh();
    const good = { format: 'yokeline-project', version: 1, snapshot, plans: [{ name: 'Mine', decisions: [] }] };
    const id = importProject(store, 'a.json', JSON.stringify(good));
    expect(projectView(store, id).plans.map((p) => p.name)).toEqual(['Mine']);
    const count = allProjects(store).length;
    const twins = { ...good, plans: [...good.plans, ...good.plans] };
    expect(() => importProject(store, 'a.json', JSON.stringify(twins))).toThrow('Two plans');
    expect(() => importProject(store, 'a.json', '{')).toThrow('a.json:1:2');
    expect(() =>
      addProject(
        store,
        snapshot,
        [good.plans[0], good.plans[0]].map((p) => ({ ...p, description: '' })),
      ),
    ).toThrow();
    expect(allProjects(store)).toHaveLength(count);
  });

  it('that are not there are said to be missing', () => {
    const { store } = fresh();
    expect(() => projectView(store, 'none')).toThrow('No such project');
    expect(() => snapshotBody(store, 'none')).toThrow('No such project');
    expect(() => createPlan(store, 'none', { name: 'x' })).toThrow('No such project');
    expect(() => planOf(store, 'none')).toThrow('No such plan');
  });

  it('refuse a database of a newer form', () => {
    const { store, file } = fresh();
    store.pragma('user_version = 99');
    store.close();
    expect(() => openStore(file, migrations)).toThrow('newer than this program');
  });
});

describe('corrections to what was read', () => {
  const change = { ...NO_AMENDMENTS, keep: ['tone-*'] };

  it('are kept, and not overwritten by a writer who saw an older version', () => {
    const { store, id } = fresh();
    expect(projectView(store, id).amended).toEqual({ version: 1, amendments: NO_AMENDMENTS });
    expect(changeAmendments(store, id, { version: 1, amendments: change })).toEqual({ version: 2, amendments: change });
    expect(() => changeAmendments(store, id, { version: 1, amendments: NO_AMENDMENTS })).toThrow(
      expect.objectContaining({ status: 409, more: { current: { version: 2, amendments: change } } }),
    );
    expect(projectView(store, id).amended.amendments).toEqual(change);
  });

  it('that don’t fit, or are of no project, change nothing', () => {
    const { store, id } = fresh();
    expect(() => changeAmendments(store, id, { version: 1, amendments: { base: 'app' } })).toThrow('amendments.base');
    expect(() => changeAmendments(store, 'none', { version: 1, amendments: {} })).toThrow('No such project');
    expect(projectView(store, id).amended.version).toBe(1);
  });

  it('come and go with project files', () => {
    const { store } = fresh();
    const file = { format: 'yokeline-project', version: 1, snapshot, plans: [], amendments: change };
    const id = importProject(store, 'a.json', JSON.stringify(file));
    expect(projectView(store, id).amended.amendments).toEqual(change);
  });
});

describe('plans', () => {
  it('are not overwritten by a writer who saw an older version', () => {
    const { store, planId } = fresh();
    changePlan(store, planId, { version: 1, decisions: [{ kind: 'detach', import: 'main::a' }] });
    try {
      changePlan(store, planId, { version: 1, decisions: [] });
      throw new Error('not refused');
    } catch (error) {
      expect(error).toBeInstanceOf(Problem);
      expect(error).toMatchObject({ status: 409, more: { current: { version: 2 } } });
    }
    expect(planOf(store, planId).decisions).toHaveLength(1);
  });

  it('are made, renamed and removed; two of one name are refused', () => {
    const { store, id, planId } = fresh();
    const plan = createPlan(store, id, { name: 'Second', decisions: [{ kind: 'loader', loader: 'discovered' }] });
    expect(plan.version).toBe(1);
    expect(() => createPlan(store, id, { name: 'Second' })).toThrow('choose another name');
    expect(() => changePlan(store, planId, { version: 1, name: 'Baseline' })).toThrow('choose another name');
    expect(changePlan(store, planId, { version: 1, name: 'Renamed' }).name).toBe('Renamed');
    removePlan(store, plan.id);
    expect(projectView(store, id).plans.map((p) => p.name)).toEqual(['Renamed']);
  });

  it('remember what they began as a copy of, under its new name, until it is removed', () => {
    const { store, id, planId } = fresh();
    const first = planOf(store, planId);
    const copy = createPlan(store, id, { name: 'Copy', decisions: [], basedOn: first.name });
    expect(copy.basedOn).toBe(first.name);
    changePlan(store, planId, { version: 1, name: 'Other name' });
    expect(planOf(store, copy.id).basedOn).toBe('Other name');
    removePlan(store, planId);
    expect(planOf(store, copy.id).basedOn).toBeNull();
    expect(() => createPlan(store, id, { name: 'Lost', basedOn: 'none' })).toThrow('no plan called “none”');
  });

  it('take no decisions that they don’t understand', () => {
    const { store, planId } = fresh();
    expect(() => changePlan(store, planId, { version: 1, decisions: [{ kind: 'fly' }] })).toThrow('decisions[0].kind');
    expect(planOf(store, planId).version).toBe(1);
  });
});

describe('requests', () => {
  const ask = (body: unknown, headers: Record<string, string> = {}) =>
    new Request('http://127.0.0.1:4780/api/x', {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { host: '127.0.0.1:4780', ...headers },
    });

  it('are checked field by field', async () => {
    await expect(readInput(ask({ name: 'fine' }), NewPlanInput)).resolves.toMatchObject({ name: 'fine' });
    await expect(readInput(ask({ name: '' }), NewPlanInput)).rejects.toMatchObject({
      status: 422,
      more: { at: 'name' },
    });
    await expect(readInput(ask({ version: 'one' }), PlanChangeInput)).rejects.toMatchObject({
      more: { at: 'version' },
    });
    await expect(readInput(ask({ version: 1, extra: true }), PlanChangeInput)).rejects.toMatchObject({
      more: { at: 'extra' },
    });
    await expect(readInput(ask([]), PlanChangeInput)).rejects.toMatchObject({ status: 422 });
    const noJson = new Request('http://x/', { method: 'POST', body: '{' });
    await expect(readInput(noJson, PlanChangeInput)).rejects.toMatchObject({ status: 400 });
  });

  it('are taken only from this machine and the own page', () => {
    expect(() => guard(ask({}))).not.toThrow();
    expect(() => guard(ask({}, { origin: 'http://127.0.0.1:4780' }))).not.toThrow();
    expect(() => guard(ask({}, { host: 'evil.example' }))).toThrow('Not from here');
    expect(() => guard(ask({}, { origin: 'http://evil.example' }))).toThrow('Not from here');
    expect(() => guard(ask({}, { origin: 'null' }))).toThrow('Not from here');
  });

  it('that fail are answered with problem details and nothing of the inside', async () => {
    const told = await handle(ask({}), () => {
      throw new Problem('changed-elsewhere', 'Changed elsewhere', 'Reload.', { current: 1 });
    });
    expect(told.status).toBe(409);
    expect(told.headers.get('content-type')).toBe('application/problem+json');
    expect(await told.json()).toEqual({
      type: 'urn:yokeline:problem:changed-elsewhere',
      status: 409,
      title: 'Changed elsewhere',
      detail: 'Reload.',
      current: 1,
    });
    const inside = await handle(ask({}), () => {
      throw new Error('password is 1234');
    });
    expect(inside.status).toBe(500);
    expect(await inside.text()).not.toContain('1234');
  });
});

describe('who may come in', () => {
  afterEach(() => {
    delete process.env.YOKELINE_KEY;
  });
  const come =
    (headers: Record<string, string>, method = 'GET') =>
    () =>
      guard(new Request('http://10.0.0.4:4780/api/projects', { method, headers }));

  it('from elsewhere only with the key, whatever the Host is called', () => {
    const host = '10.0.0.4:4780';
    expect(come({ host })).toThrow('Not from here');
    process.env.YOKELINE_KEY = 'long and quite secret';
    expect(come({ host })).toThrow('Key needed');
    expect(come({ host, cookie: 'yokeline-key=wrong' })).toThrow('Key needed');
    expect(come({ host, cookie: 'yokeline-key=%E0%A4%A' })).toThrow('Key needed');
    expect(come({ host, cookie: `other=1; ${keyCookie('long and quite secret').split(';')[0]}` })).not.toThrow();
    expect(come({ host: 'localhost:4780' })).toThrow('Key needed');
    const cookie = keyCookie('long and quite secret').split(';')[0];
    expect(come({ host, cookie, origin: 'http://evil.example' }, 'POST')).toThrow('Not from here');
    expect(come({ host, cookie, origin: `http://${host}` }, 'POST')).not.toThrow();
    expect(keyCookie('long and quite secret')).not.toContain('secret');
    expect(keyCookie('x')).toMatch(/HttpOnly; SameSite=Strict/);
  });

  it('not after many wrong keys, but whoever is in already stays in', () => {
    const host = '10.0.0.4:4780';
    process.env.YOKELINE_KEY = 'long and quite secret';
    const tried = (cookie: string) => {
      try {
        come({ host, cookie: `yokeline-key=${encodeURIComponent(cookie)}` })();
        return 'in';
      } catch (error) {
        return (error as Problem).code;
      }
    };
    const answers = Array.from({ length: 12 }, (_, n) => tried(`guess ${n}`));
    expect(answers[0]).toBe('key-needed');
    expect(answers.at(-1)).toBe('too-often');
    expect(tried('long and quite secret')).toBe('too-often');
    expect(come({ host, cookie: keyCookie('long and quite secret').split(';')[0] })).not.toThrow();
  });

  it('not with a key that could be guessed', () => {
    process.env.YOKELINE_KEY = 'fifteen letters';
    expect(come({ host: 'localhost' })).toThrow('too short');
    expect(() => demandKey([], { ...process.env })).toThrow('at least 16');
  });

  it.each([
    [['next', 'start'], true],
    [['next', 'start', '-p', '80'], true],
    [['next', 'start', '--hostname', '0.0.0.0'], true],
    [['next', 'start', '-H', '192.168.0.4'], true],
    [['next', 'start', '--hostname=localhost.example'], true],
    [['next', 'start', '--hostname', '127.0.0.1'], false],
    [['next', 'start', '--hostname=localhost'], false],
    [['next', 'start', '-H', '::1'], false],
  ])('asked for a key where the server is reached from elsewhere, however it was started: %j', (command, asked) => {
    const env: NodeJS.ProcessEnv = { NODE_ENV: 'production' };
    const said = demandKey(command, env);
    expect(said === null ? undefined : /key=(\S{16,}) /.exec(said)?.[1]).toBe(env.YOKELINE_KEY);
    expect(env.YOKELINE_KEY !== undefined).toBe(asked);
  });

  it.each([
    ['same-origin', 'cors', 'empty', true, true],
    ['none', 'navigate', 'document', true, true],
    ['cross-site', 'navigate', 'document', true, false],
    ['same-site', 'navigate', 'document', true, false],
    ['cross-site', 'navigate', 'iframe', false, false],
    ['cross-site', 'no-cors', 'script', false, false],
    ['same-site', 'no-cors', 'image', false, false],
  ])('%s by %s for %s: to a page %s, to data %s', (site, mode, dest, page, data) => {
    const headers = { host: 'localhost', 'sec-fetch-site': site, 'sec-fetch-mode': mode, 'sec-fetch-dest': dest };
    const allowed = (address: string) => {
      try {
        guard(new Request(`http://localhost${address}`, { headers }));
        return true;
      } catch {
        return false;
      }
    };
    expect([allowed('/p/x/startup'), allowed('/api/projects')]).toEqual([page, data]);
  });

  it('not more often than the work allows, and again after a while', () => {
    const at = 1e9;
    for (let n = 0; n < 10; n++) takeTurn('file', at);
    expect(() => takeTurn('file', at)).toThrow('Too often');
    expect(() => takeTurn('file', at + 999)).toThrow('Try again in 1 second.');
    expect(() => takeTurn('file', at + 1001)).not.toThrow();
  });

  it('with a policy that runs no script but its own', () => {
    const { 'content-security-policy': policy, ...others } = securityHeaders('abc');
    expect(policy).toContain("script-src 'self' 'nonce-abc';");
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
    expect(policy).toContain("frame-ancestors 'none'");
    expect(others).toMatchObject({ 'x-content-type-options': 'nosniff', 'referrer-policy': 'no-referrer' });
  });
});

it.each([
  ['SQLITE_FULL', 507, 'The disk is full'],
  ['SQLITE_READONLY_DIRECTORY', 503, 'The database can’t be written'],
  ['SQLITE_IOERR_WRITE', 503, 'The database doesn’t answer'],
])('a database that fails with %s is told with what to do', (code, status, title) => {
  const problem = problemOf(Object.assign(new Error('inside'), { code }));
  expect(problem).toMatchObject({ status, title });
  expect(problem.detail).toContain('kept in this browser');
});
