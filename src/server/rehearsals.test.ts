import path from 'node:path';
import { openStore, type Store } from '../store/database.ts';
import { built } from '../test-support/built.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { sketch } from '../test-support/snapshots.ts';
import { inputOf, RehearsalInput } from './inputs.ts';
import { addProject } from './projects.ts';
import { forgetRehearsal, rehearsalState, rehearsalsOf, startRehearsal, stopRehearsal } from './rehearsal-jobs.ts';

afterAll(removeFolders);

const script = built('rehearse/process/rehearsal-process.js');
const APP = {
  'index.html': '<script type="module" src="/main.js"></script>',
  'main.js': 'document.body.append("here");',
};
const WISH = {
  name: 'Lean',
  decisions: [],
  route: '/none',
  link: 'clear-cell',
  device: 'laptop',
  cache: 'empty',
  runs: 1,
};
const wish = (more: object = {}) => inputOf(JSON.stringify({ ...WISH, ...more }), RehearsalInput);

function fresh(folder: string | null = folderOf(APP)): { store: Store; id: string } {
  const store = openStore(path.join(folderOf({}), 'a.sqlite'), path.resolve('src/store/migrations'));
  const origin = {
    texts: {},
    sources: {},
    folder,
    readAs: 'tell by content' as const,
    givenBase: null,
    workspace: null,
    starts: [],
  };
  return { store, id: addProject(store, sketch({ 'main.js': {} }), [], { ...origin, folder: folder ?? undefined }) };
}

async function ended(id: string) {
  for (let state = rehearsalState(id); ; state = rehearsalState(id)) {
    if (state.state !== 'running') return state;
    await new Promise((wake) => setTimeout(wake, 20));
  }
}

describe('a rehearsal', () => {
  beforeAll(() => {
    // The script that is forked is the built one.
    process.env.YOKELINE_HOME = path.resolve(path.dirname(script), '../../..');
  });

  it('doesn’t run code without leave, which is kept with the project', async () => {
    const { store, id } = fresh();
    expect(() => startRehearsal(() => store, id, wish())).toThrow(
      expect.objectContaining({ code: 'not-allowed-to-run' }),
    );
    expect(rehearsalsOf(store, id)).toEqual({ mayRun: false, kept: [], running: null });
    const state = startRehearsal(() => store, id, wish({ allow: true }));
    expect(state).toMatchObject({ state: 'running', of: 1, projectId: id });
    expect(() => startRehearsal(() => store, id, wish())).toThrow(expect.objectContaining({ code: 'rehearsal-runs' }));
    // Whoever opens the page now sees it, and can stop it.
    expect(rehearsalsOf(store, id).running).toMatchObject({ id: state.id, plan: 'Lean' });
    expect(stopRehearsal(state.id).stopping).toBe(true);
    const end = await ended(state.id);
    // There is no such route, or no browser: whichever is found first is told.
    expect(end).toMatchObject({
      state: 'failed',
      problem: { title: expect.stringMatching(/No such route|No browser/) },
    });
    expect(rehearsalsOf(store, id)).toEqual({ mayRun: true, kept: [], running: null });
    store.close();
  });

  it('is refused for projects without a folder, and for what isn’t there', () => {
    const { store, id } = fresh(null);
    expect(() => startRehearsal(() => store, 'none', wish())).toThrow('No such project');
    expect(() => rehearsalsOf(store, 'none')).toThrow('No such project');
    expect(() => startRehearsal(() => store, id, wish({ allow: true }))).toThrow('Nothing to read again');
    expect(() => rehearsalState('none')).toThrow('No such rehearsal');
    expect(() => forgetRehearsal(store, id, 'none')).toThrow('No such rehearsal');
    store.close();
  });

  it.each([
    ['runs', { runs: 0 }],
    ['runs', { runs: 51 }],
    ['cache', { cache: 'full' }],
    ['address', { address: 'trips' }],
    ['allow', { allow: 'yes' }],
    ['route', { route: '' }],
  ])('names the field that is wrong: %s', (field, more) => {
    expect(() => wish(more)).toThrow(expect.objectContaining({ more: { at: field } }));
  });
});
