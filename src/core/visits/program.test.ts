import { ROUND } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE } from '../plan/types.ts';
import { playVisit } from './play.ts';
import { VisitCompiler } from './program.ts';
import type { VisitStep } from './types.ts';

const snapshot = sketch(
  {
    main: { imports: ['home', '~shop'] },
    home: { imports: ['~dialog', 'hero'] },
    hero: {},
    dialog: {},
    shop: {},
    office: { imports: ['desk'] },
    desk: {},
  },
  {
    entries: [
      { realm: 'site', kind: 'document', document: 'index.html', modules: ['main'] },
      { realm: 'office', kind: 'document', document: 'office.html', modules: ['office'] },
    ],
    routes: [
      route('/', 'home', { parts: [part('hero', 'hero'), part('dialog', 'dialog', { place: 'action' })] }),
      route('/shop', 'shop'),
      route('/office', 'desk', { realm: 'office' }),
    ],
  },
);
const compiler = new VisitCompiler(planned(snapshot, BASELINE));
const play = (steps: VisitStep[], landing = '/') => playVisit(compiler, { name: '', landing, holds: [], steps }, ROUND);
const pause = { dwellMs: 500, leadMs: 0 };
const move = (to: string, by: 'inside' | 'document'): VisitStep => ({ does: 'move', to, by, holds: [], ...pause });

it.each<[string, string, VisitStep[]]>([
  ['No such route', 'steps[0]', [move('/lost', 'inside')]],
  [
    'No such route',
    'steps[1]',
    [
      { does: 'deploy', dwellMs: 0 },
      { does: 'approach', to: '/lost', ...pause },
    ],
  ],
  ['No such part', 'steps[0]', [{ does: 'act', part: 'lost', ...pause }]],
  ['No such part', 'steps[1]', [move('/shop', 'inside'), { does: 'act', part: 'dialog', ...pause }]],
  ['Nothing to wait for', 'steps[0]', [{ does: 'act', part: 'hero', ...pause }]],
  ['No way inside the app', 'steps[0]', [move('/office', 'inside')]],
])('%s is told with the step, %s', (title, at, steps) => {
  expect(() => play(steps)).toThrow(expect.objectContaining({ title, at }));
});

it('names the routes that there are when the landing is none', () => {
  expect(() => play([], '/lost')).toThrow(
    expect.objectContaining({ at: 'landing', detail: expect.stringContaining('/shop') }),
  );
});

it('knows what stays inside the app: one realm, and never another one’s', () => {
  expect(compiler.staysInside('/', '/shop')).toBe(true);
  expect(compiler.staysInside('/', '/office')).toBe(false);
  expect(play([move('/office', 'document')]).timeline.pages).toHaveLength(2);
});

it('goes on from where the visit is: acts belong to the route that was moved to, also after coming back', () => {
  const steps: VisitStep[] = [move('/shop', 'inside'), move('/', 'inside'), { does: 'act', part: 'dialog', ...pause }];
  const { experiences } = play(steps);
  expect(experiences.map((e) => e.kind)).toEqual(['landing', 'move', 'move', 'act']);
  expect(experiences[3].wait).toBeGreaterThan(100);
});

it('tells a return after a deploy as two moments of one step', () => {
  const { experiences } = play([
    { does: 'return', to: '/shop', awayMs: 3_600_000, deployed: true, dwellMs: 100, holds: [] },
  ]);
  expect(experiences.map((e) => [e.step, e.kind])).toEqual([
    [-1, 'landing'],
    [0, 'other'],
    [0, 'document'],
  ]);
});

it('sums up waits after the landing, bytes, and what nothing used', () => {
  const { sums, experiences, timeline } = play([{ does: 'act', part: 'dialog', ...pause }, move('/shop', 'inside')]);
  expect(sums.waits).toBeCloseTo(experiences[1].wait + experiences[2].wait, 9);
  const all = timeline.pages[0].timeline.requests.reduce((sum, r) => sum + r.bytes, 0);
  expect(sums).toMatchObject({ bytes: all, unused: 0, failures: 0 });
});

it('shows parts of one group together on a route that is moved to, and again when the person comes back', () => {
  const app = sketch(
    {
      main: { imports: ['home', '~shop'] },
      home: { imports: ['~near', '~far'] },
      near: { bytes: 2000 },
      far: { bytes: 90_000 },
      shop: { imports: ['~near', '~far'] },
    },
    {
      routes: ['home', 'shop'].map((page) =>
        route(page === 'home' ? '/' : '/shop', page, { parts: [part('near', 'near'), part('far', 'far')] }),
      ),
    },
  );
  const grouped = ['near', 'far'].map((splitPoint) => ({ kind: 'split' as const, splitPoint, together: 'pair' }));
  const shownOn = (decisions: typeof grouped, steps: VisitStep[], landing = '/') => {
    const own = new VisitCompiler(planned(app, { ...BASELINE, decisions }));
    const { experiences } = playVisit(own, { name: '', landing, holds: [], steps }, ROUND);
    return experiences.map(({ parts }) => ['near', 'far'].map((n) => parts.find((p) => p.name === n)!.shown));
  };
  const visit = [move('/shop', 'inside'), move('/', 'inside')];
  const alone = shownOn([], [], '/shop');
  expect(alone[0][1] - alone[0][0]).toBeGreaterThan(100);
  const times = shownOn(grouped, visit);
  expect(times).toHaveLength(3);
  for (const [near, far] of [...times, ...shownOn(grouped, [], '/shop')]) {
    expect(Number.isFinite(near)).toBe(true);
    expect(Math.abs(far - near)).toBeLessThan(60);
  }
});
