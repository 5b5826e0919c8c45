import { route, sketch } from '../../test-support/snapshots.ts';
import { parseProject, studied, writeProject } from '../formats/project-file.ts';
import type { Visit } from '../visits/types.ts';
import { amend } from './amend.ts';
import { AMENDMENTS, NO_AMENDMENTS } from './types.ts';
import { withLearned, withVisit, withVisitors } from './visits.ts';

const snapshot = sketch(
  { main: { imports: ['a', 'b'] }, a: {}, b: {} },
  {
    routes: [route('/a', 'a', { landings: 5 }), route('/b', 'b')],
    visitors: { returning: 0.2, routes: [{ pattern: '/a', moves: [{ to: '/b', share: 0.1 }] }, { pattern: '/b' }] },
  },
);
const visit: Visit = { name: 'Books', landing: '/a', holds: [], steps: [{ does: 'deploy', dwellMs: 5 }] };

it('keeps visits under their names', () => {
  const once = withVisit(NO_AMENDMENTS, visit);
  const other = withVisit(once, { ...visit, name: 'Looks' });
  const again = withVisit(other, { ...visit, landing: '/b' });
  expect(again.visits?.map((v) => [v.name, v.landing])).toEqual([
    ['Looks', '/a'],
    ['Books', '/b'],
  ]);
});

it('lays what is said of visitors in place of what was read, and nothing where nothing is said', () => {
  expect(amend(snapshot, NO_AMENDMENTS).snapshot.visitors).toEqual(snapshot.visitors);
  expect(amend(snapshot, withVisitors(NO_AMENDMENTS, { touch: 0.5 })).snapshot.visitors).toEqual({ touch: 0.5 });
});

it('takes from a log what it knows, keeps the rest, and lets nobody land where the log saw nobody', () => {
  const learned = {
    landings: [{ pattern: '/b', landings: 7, stays: 9 }],
    notes: { routes: [{ pattern: '/b', moves: [{ to: '/a', share: 0.4 }] }] },
  };
  const { snapshot: amended } = amend(snapshot, withLearned(NO_AMENDMENTS, snapshot, learned));
  expect(amended.visitors).toEqual({
    returning: 0.2,
    routes: [snapshot.visitors!.routes![0], { pattern: '/b', moves: [{ to: '/a', share: 0.4 }] }],
  });
  expect(amended.routes.map((r) => r.landings)).toEqual([0, 7]);
});

it('survives a project file, and a hostile one is told by its field', () => {
  const amendments = withVisitors(withVisit(NO_AMENDMENTS, visit), { dataSaver: 0.1 });
  const text = writeProject({ format: 'yokeline-project', version: 1, snapshot, plans: [], amendments });
  const project = parseProject(text, 'p');
  expect(project.amendments).toEqual(amendments);
  expect(project.snapshot.visitors).toEqual(snapshot.visitors);
  expect(studied(project).visitors).toEqual({ dataSaver: 0.1 });
  const bad = { ...NO_AMENDMENTS, visits: [{ ...visit, steps: 'many' }] };
  expect(() => AMENDMENTS.check(bad, 'amendments')).toThrow(
    expect.objectContaining({ at: 'amendments.visits[0].steps' }),
  );
  const none = { ...NO_AMENDMENTS, visitors: { touch: 'yes' } };
  expect(() => AMENDMENTS.check(none, 'amendments')).toThrow(
    expect.objectContaining({ at: 'amendments.visitors.touch' }),
  );
});
