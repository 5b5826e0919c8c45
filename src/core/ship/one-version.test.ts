import { route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { shipped, troublesOf } from './shipped.ts';

const LIB = { package: 'dates', bytes: 9000 };

function twoVersions(): Snapshot {
  const snapshot = sketch(
    {
      main: { imports: ['home', 'old/dates/index'] },
      home: { imports: ['new/dates/index'] },
      'old/dates/index': { ...LIB, imports: ['old/dates/zones'] },
      'old/dates/zones': LIB,
      'new/dates/index': { ...LIB, imports: ['new/dates/zones'] },
      'new/dates/zones': LIB,
    },
    { routes: [route('/', 'home')] },
  );
  const folders = ['old/dates', 'new/dates'];
  return { ...snapshot, packages: folders.map((folder, i) => ({ name: 'dates', version: `${i + 1}.0.0`, folder })) };
}

const keeping = (keep: string, name = 'dates'): Plan => ({
  ...BASELINE,
  decisions: [{ kind: 'one version', package: name, keep }],
});

const carried = (snapshot: Snapshot, plan: Plan) => {
  const now = shipped(snapshot, plan).snapshot;
  return new Set(planned(now, plan).graph.chunks.flatMap((c) => c.modules.map((m) => now.modules[m].path)));
};

it('leads all imports into the version that is kept, so that the other one doesn’t travel', () => {
  const paths = carried(twoVersions(), keeping('new/dates'));
  expect([...paths].sort()).toEqual(['home', 'main', 'new/dates/index', 'new/dates/zones']);
  expect(carried(twoVersions(), BASELINE).size).toBe(6);
});

it('says why it can’t be done', () => {
  const reason = (plan: Plan, snapshot = twoVersions()) => troublesOf(snapshot, plan).stale.map((s) => s.reason);
  expect(reason(keeping('elsewhere/dates'))).toEqual(['no package dates in elsewhere/dates in this snapshot']);
  const lacking = twoVersions();
  lacking.modules = lacking.modules.map((m) => (m.path === 'new/dates/index' ? { ...m, path: 'new/dates/main' } : m));
  expect(reason(keeping('new/dates'), lacking)[0]).toContain('new/dates has no index');
  const single = { ...twoVersions(), packages: twoVersions().packages.slice(0, 1) };
  expect(reason(keeping('old/dates'), single)).toEqual(['dates is there only once']);
});

it('tells versions apart where one is installed inside the other’s folder', () => {
  const snapshot = sketch(
    {
      main: { imports: ['lib/dates/index', 'lib/dates/inner/dates/index'] },
      'lib/dates/index': LIB,
      'lib/dates/inner/dates/index': LIB,
    },
    { routes: [route('/', 'main')] },
  );
  const folders = ['lib/dates/inner/dates', 'lib/dates'];
  for (const order of [folders, [...folders].reverse()]) {
    const packages = order.map((folder) => ({
      name: 'dates',
      version: folder.length > 10 ? '1.0.0' : '2.0.0',
      folder,
    }));
    const app = { ...snapshot, packages };
    expect([...carried(app, keeping('lib/dates'))].sort()).toEqual(['lib/dates/index', 'main']);
    expect([...carried(app, keeping('lib/dates/inner/dates'))].sort()).toEqual(['lib/dates/inner/dates/index', 'main']);
  }
});

it('names what doesn’t apply in the order of the decisions, whenever it was noticed', () => {
  const decisions: Plan['decisions'] = [
    { kind: 'detach', module: 'nowhere' },
    { kind: 'one version', package: 'dates', keep: 'elsewhere' },
    { kind: 'detach', module: 'nowhere either' },
    { kind: 'one version', package: 'times', keep: 'x' },
  ];
  expect(troublesOf(twoVersions(), { ...BASELINE, decisions }).stale.map((s) => s.decision)).toEqual([0, 1, 2, 3]);
});
