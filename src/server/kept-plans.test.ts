import fs from 'node:fs';
import path from 'node:path';
import { parsePlansFile, writePlansFile } from '../core/formats/plans-file.ts';
import type { Decision } from '../core/plan/types.ts';
import { openStore, type Store } from '../store/database.ts';
import { amendmentsOf, updateAmendments } from '../store/projects.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { route, sketch } from '../test-support/snapshots.ts';
import { agree, keepPlans } from './kept-plans.ts';
import { changePlan, createPlan, removePlan } from './plans.ts';
import { addProject, projectView } from './projects.ts';

afterAll(removeFolders);

const detach = (module: string): Decision => ({ kind: 'detach', module });

function fresh(): { store: Store; id: string; file: string } {
  const store = openStore(path.join(folderOf({}), 'a.sqlite'), path.resolve('src/store/migrations'));
  const folder = folderOf({ 'index.html': '' });
  const snapshot = sketch({ main: {}, page: {} }, { routes: [route('/', 'page')] });
  return { store, id: addProject(store, snapshot, [], { folder }), file: path.join(folder, 'yokeline.plan.json') };
}

const kept = (file: string) => parsePlansFile(fs.readFileSync(file, 'utf8'), file);
const names = (store: Store, id: string) => projectView(store, id).plans.map((p) => [p.name, p.decisions.length]);
const edit = (file: string, change: (text: string) => string) =>
  fs.writeFileSync(file, change(fs.readFileSync(file, 'utf8')));

describe('plans beside the code', () => {
  it('aren’t written before somebody wants them, and never for a project without a folder', () => {
    const { store, id, file } = fresh();
    expect(agree(store, id)).toEqual({ kept: false, taken: false, conflicts: [] });
    expect(fs.existsSync(file)).toBe(false);
    const bare = addProject(store, sketch({ main: {} }), []);
    expect(agree(store, bare).kept).toBe(false);
    expect(() => keepPlans(store, bare)).toThrow('No folder');
  });

  it('follow what is decided, and what the file says, in turn', () => {
    const { store, id, file } = fresh();
    keepPlans(store, id);
    createPlan(store, id, { name: 'Lean', decisions: [detach('a')] });
    expect(agree(store, id)).toEqual({ kept: true, taken: false, conflicts: [] });
    expect(kept(file).plans.map((p) => p.name)).toEqual(['First plan', 'Lean']);
    edit(file, (text) => text.replace('"module": "a"', '"module": "b"'));
    expect(agree(store, id)).toEqual({ kept: true, taken: true, conflicts: [] });
    const lean = projectView(store, id).plans.find((p) => p.name === 'Lean')!;
    expect([lean.decisions, lean.version]).toEqual([[detach('b')], 2]);
    // Nothing to do, and nothing is done.
    const before = fs.statSync(file).mtimeMs;
    expect(agree(store, id).taken).toBe(false);
    expect(fs.statSync(file).mtimeMs).toBe(before);
    removePlan(store, lean.id);
    agree(store, id);
    expect(kept(file).plans.map((p) => p.name)).toEqual(['First plan']);
  });

  it('lose nothing where both were changed', () => {
    const { store, id, file } = fresh();
    const { id: planId } = createPlan(store, id, { name: 'Lean', decisions: [detach('a')] });
    keepPlans(store, id);
    changePlan(store, planId, { version: 1, decisions: [detach('mine')] });
    edit(file, (text) => text.replace('"module": "a"', '"module": "theirs"'));
    const { conflicts } = agree(store, id);
    expect(conflicts).toEqual([expect.stringContaining('“Lean (file)”')]);
    expect(kept(file).plans.flatMap((p) => p.decisions)).toEqual([detach('mine'), detach('theirs')]);
    expect(names(store, id)).toEqual([
      ['First plan', 0],
      ['Lean', 1],
      ['Lean (file)', 1],
    ]);
    expect(agree(store, id)).toEqual({ kept: true, taken: false, conflicts: [] });
  });

  it('that lie there when an app is opened are taken, without the empty plan that every project begins with', () => {
    const { store, id, file } = fresh();
    const limits = [
      { route: '/', measure: 'interactive', most: 900, link: 'clear-cell', device: 'laptop', cache: 'empty' } as const,
    ];
    const amendments = { confirmed: true, base: null, routes: [], keep: [], limits };
    fs.writeFileSync(
      file,
      writePlansFile({ plans: [{ name: 'Lean', description: '', decisions: [detach('a')] }], amendments }),
    );
    expect(agree(store, id)).toEqual({ kept: true, taken: true, conflicts: [] });
    expect(names(store, id)).toEqual([['Lean', 1]]);
    expect(amendmentsOf(store, id)!.amendments.limits).toEqual(limits);
    // What was measured on this machine is no decision: it stays here, and out of the file.
    const { version, amendments: now } = amendmentsOf(store, id)!;
    updateAmendments(store, id, version, { ...now, measured: { modules: {} } as never });
    expect(agree(store, id).taken).toBe(false);
    expect(fs.readFileSync(file, 'utf8')).not.toContain('measured');
    expect(amendmentsOf(store, id)!.amendments.measured).toBeDefined();
  });

  it('that can’t be understood are left as they are, and told by the field; that are gone are kept no more', () => {
    const { store, id, file } = fresh();
    createPlan(store, id, { name: 'Lean', decisions: [detach('a')] });
    keepPlans(store, id);
    edit(file, (text) => text.replace('"detach"', '"fly"'));
    const broken = fs.readFileSync(file, 'utf8');
    expect(() => agree(store, id)).toThrow(
      expect.objectContaining({ at: expect.stringContaining('decisions[0].kind') }),
    );
    expect(fs.readFileSync(file, 'utf8')).toBe(broken);
    expect(names(store, id)).toEqual([
      ['First plan', 0],
      ['Lean', 1],
    ]);
    fs.rmSync(file);
    expect(agree(store, id).kept).toBe(false);
    expect(fs.existsSync(file)).toBe(false);
  });
});
