import path from 'node:path';
import { NO_AMENDMENTS } from '../core/amend/types.ts';
import { BASELINE } from '../core/plan/types.ts';
import { predict } from '../core/predict/predict.ts';
import { LINKS } from '../core/sim/conditions.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { openStore } from '../store/database.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { route, sketch } from '../test-support/snapshots.ts';
import { choiceOf, conditionsOf, wishesOf } from '../worker/choice.ts';
import { firstPage } from './first-look.ts';
import { changePlan } from './plans.ts';
import { addProject, changeAmendments, projectView } from './projects.ts';

afterAll(removeFolders);

const snapshot = sketch(
  { main: { imports: ['a', '~b'] }, a: { bytes: 40_000 }, b: { bytes: 9000 } },
  { name: 'tiny-app', routes: [route('/', 'a'), route('/b', 'b')] },
);

function stored(of: Snapshot = snapshot) {
  const store = openStore(path.join(folderOf({}), 'data.sqlite'), path.resolve('src/store/migrations'));
  return { store, id: addProject(store, of, []) };
}

describe('what a page shows first', () => {
  it('is the landing that its address asks for, as the page itself would work it out', () => {
    const { store, id } = stored();
    const search = `plan=baseline&route=/b&link=${LINKS[1].id}&cache=returning`;
    const page = firstPage(() => store, id, search)!;
    const project = projectView(store, id);
    expect(page.project).toEqual(project);
    expect(page.app).toMatchObject({ name: 'tiny-app', modules: 3 });
    const conditions = conditionsOf(choiceOf(wishesOf(search), project.plans, page.app.routes));
    const { reading } = predict(snapshot, BASELINE, '/b', conditions);
    expect(page.landing!.now.milestones).toEqual(reading.milestones);
    expect(page.landing!.ghost).toBe(page.landing!.now);
  });

  it('is of the plan and of the corrections as they are now', () => {
    const { store, id } = stored();
    const look = () => firstPage(() => store, id, '')!;
    const before = look();
    const [plan] = before.project.plans;
    changePlan(store, plan.id, { version: 1, decisions: [{ kind: 'detach', import: 'main::a' }] });
    const after = look();
    expect(after.landing!.now.readout.startBytes).not.toBe(before.landing!.now.readout.startBytes);
    expect(after.landing!.ghost.readout).toEqual(before.landing!.ghost.readout);
    changeAmendments(store, id, { version: 1, amendments: { ...NO_AMENDMENTS, base: '/app/' } });
    expect([before.app.base, look().app.base]).toEqual(['/', '/app/']);
  });

  it('is of one app at a time, though several are looked at', () => {
    const apps = ['one', 'two', 'three'].map((name) => ({ name, ...stored({ ...snapshot, name }) }));
    for (const { name, store, id } of [...apps, ...apps]) expect(firstPage(() => store, id, '')!.app.name).toBe(name);
  });

  it('is no landing where the app has no route, and nothing where it can’t be shown', () => {
    const { store, id } = stored({ ...snapshot, routes: [] });
    expect(firstPage(() => store, id, '')).toMatchObject({ landing: null, app: { modules: 3 } });
    expect(firstPage(() => store, 'none', '')).toBeNull();
    const closed = () => {
      throw new Error('the database is damaged');
    };
    expect(firstPage(closed, id, '')).toBeNull();
  });

  it('is nothing of an app that is so large that others would wait for it', () => {
    let state = 1;
    const noise = () => {
      state = (state * 48_271) % 2_147_483_647;
      return state.toString(36);
    };
    const many = Array.from(
      { length: 40_000 },
      () => `src/${noise()}${noise()}/${noise()}${noise()}/${noise()}${noise()}${noise()}${noise()}.ts`,
    );
    const { store, id } = stored(
      sketch(Object.fromEntries(many.map((m) => [m, {}])), { routes: [route('/', many[0])] }),
    );
    expect(firstPage(() => store, id, '')).toBeNull();
  });
});
