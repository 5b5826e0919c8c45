import Papa from 'papaparse';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { amend } from '../amend/amend.ts';
import { NO_AMENDMENTS } from '../amend/types.ts';
import { withLearned } from '../amend/visits.ts';
import { NavigationLog } from '../formats/navigation-log.ts';
import { drawVisit } from './draw.ts';
import { LogLearner } from './learn.ts';
import { modelOf } from './model.ts';

const snapshot = sketch(
  { main: { imports: ['home', '~shop', '~item'] }, home: { imports: ['~dialog'] }, dialog: {}, shop: {}, item: {} },
  {
    routes: [
      route('/', 'home', {
        landings: 70,
        parts: [part('dialog', 'dialog', { place: 'action', action: 'ask', share: 0.4 })],
      }),
      route('/shop', 'shop', { landings: 30 }),
      route('/items/:id', 'item', { landings: 0 }),
    ],
    visitors: {
      routes: [
        { pattern: '/', dwell: { medianMs: 5000, spread: 0.5 }, moves: [{ to: '/shop', share: 0.6 }] },
        { pattern: '/shop', dwell: { medianMs: 2000, spread: 0.3 }, moves: [{ to: '/items/:id', share: 0.25 }] },
      ],
    },
  },
);

function read(...pieces: string[]) {
  const learner = new LogLearner(snapshot.routes);
  const log = new NavigationLog(
    'visits.csv',
    (text) => Papa.parse<string[]>(text, { delimiter: ',' }).data,
    (record, line) => learner.add(record, line),
    (what, line) => learner.unreadable(what, line),
  );
  for (const piece of pieces) log.push(piece);
  log.end();
  return learner.result();
}

/** Lines of drawn visits, those of several visits mixed as a server writes them. */
function logOf(visits: number): string[] {
  const { model } = modelOf(snapshot);
  const lines: { time: number; line: string }[] = [];
  for (let n = 0; n < visits; n++) {
    const { visit } = drawVisit(model, { staysInside: () => true, hasMoment: () => true }, 11, n);
    let time = 1_700_000_000_000 + n * 137;
    lines.push({ time, line: `v${n},${new Date(time).toISOString()},${visit.landing},` });
    for (const step of visit.steps) {
      time += step.dwellMs;
      if (step.does === 'move')
        lines.push({ time, line: `v${n},${new Date(time).toISOString()},${step.to.replace(':id', String(n))},` });
      else if (step.does === 'act') lines.push({ time, line: `v${n},${new Date(time).toISOString()},,${step.part}` });
    }
  }
  return ['visit,time,route,action', ...lines.sort((a, b) => a.time - b.time).map((l) => l.line)];
}

it('finds the shares and pauses again that visits were drawn with', () => {
  const learned = read(logOf(6000).join('\n'));
  expect(learned.troubles).toEqual([]);
  expect(learned.visits).toBe(6000);
  const share = (pattern: string) => learned.landings.find((l) => l.pattern === pattern)!.landings / 6000;
  expect(share('/')).toBeCloseTo(0.7, 1.5);
  const of = (pattern: string) => learned.notes.routes!.find((r) => r.pattern === pattern)!;
  expect(of('/').moves).toEqual([{ to: '/shop', share: expect.closeTo(0.6, 1.5) }]);
  expect(of('/').acts).toEqual([{ part: 'dialog', share: expect.closeTo(0.4, 1.5) }]);
  expect(of('/shop').moves?.[0].share).toBeCloseTo(0.25, 1.5);
  expect(of('/').dwell!.medianMs / 5000).toBeCloseTo(1, 1);
  expect(of('/').dwell!.spread).toBeCloseTo(0.5, 1);
});

it('reads the same whatever the pieces in which it comes, and as JSON lines', () => {
  const lines = logOf(50);
  const whole = lines.join('\n');
  const inBits = Array.from({ length: Math.ceil(whole.length / 37) }, (_, i) => whole.slice(i * 37, i * 37 + 37));
  expect(read(...inBits)).toEqual(read(whole));
  const json = lines.slice(1).map((l) => {
    const [visit, time, at, action] = l.split(',');
    return JSON.stringify({ visit, time: Date.parse(time), route: at, action });
  });
  const { notes, landings } = read(`${json.join('\n')}\n`);
  expect({ notes, landings }).toEqual({ notes: read(whole).notes, landings: read(whole).landings });
});

it('leaves aside what doesn’t fit, and says what and where', () => {
  const learned = read(
    [
      '\uFEFFtime,Visit,route,action,other',
      '2026-01-01T00:00:00Z,a,/,,x',
      '2026-01-01T00:00:05Z,a,,ask,x',
      '2026-01-01T00:00:02Z,a,/shop,,x',
      '2026-01-01T00:00:09Z,a,/lost?q=1,,x',
      '2026-01-01T00:00:09Z,b,/lost?q=1,,x',
      '2026-01-01T00:00:10Z,a,,fly,x',
      'never,a,/,,x',
      '"2026-01-01T00:00:20Z",a,https://app.example/items/7?x#y,,x',
    ].join('\n'),
  );
  expect(learned.troubles).toEqual([
    { kind: 'clock', what: 'a', count: 1, line: 4 },
    { kind: 'unknown route', what: '/lost?q=1', count: 2, line: 5 },
    { kind: 'unknown action', what: 'fly on /', count: 1, line: 7 },
    { kind: 'unreadable', what: expect.stringContaining('never'), count: 1, line: 8 },
  ]);
  expect(learned.notes.routes?.find((r) => r.pattern === '/')).toMatchObject({
    moves: [{ to: '/items/:id', share: 1 }],
    acts: [{ part: 'dialog', share: 1 }],
  });
});

it('tells at most 200 kinds of trouble, of one kind each only the first with a count', () => {
  const lines = Array.from({ length: 205 }, (_, i) => `a,${1000 + i},/lost/${i}`);
  const { troubles, lines: count, visits } = read(['visit,time,route', ...lines].join('\n'));
  expect([troubles.length, count, visits]).toEqual([200, 205, 0]);
  const clocks = read('visit,time,route\na,9,/\nb,9,/\na,2,/\nb,3,/\na,x,/\nb,y,/\n').troubles;
  expect(clocks.map(({ kind, what, count, line }) => [kind, what, count, line])).toEqual([
    ['clock', 'a', 2, 4],
    ['unreadable', expect.any(String), 2, 6],
  ]);
});

it('tells how long stays are only from five pauses on', () => {
  const line = (n: number) => `v${n},${n * 100_000},/\nv${n},${n * 100_000 + 3000},/shop`;
  const dwell = (count: number) =>
    read(['visit,time,route', ...Array.from({ length: count }, (_, n) => line(n))].join('\n')).notes.routes?.find(
      (r) => r.pattern === '/',
    )?.dwell;
  expect(dwell(4)).toBeUndefined();
  expect(dwell(5)?.medianMs).toBeCloseTo(3000, -2);
});

it('takes a line without a route for one where the visit is, and tells of one that is nowhere', () => {
  const learned = read('visit,time,route,action\na,1,,ask\nb,1,/,\nb,5,,ask\nb,9,/,ask\nb,12,/shop/,\n');
  expect(learned.troubles).toEqual([{ kind: 'unknown route', what: '(none said)', count: 1, line: 2 }]);
  expect(learned.landings).toEqual([
    { pattern: '/', landings: 1, stays: 1 },
    { pattern: '/shop', landings: 0, stays: 1 },
  ]);
});

it('refuses what is no log', () => {
  expect(() => read('name,when\nx,y')).toThrow(
    expect.objectContaining({ at: 'visits.csv:1', detail: expect.stringContaining('visit') }),
  );
  expect(() => read('  \n \n')).toThrow('Empty log');
});

it('lays what it learned over what was said, landings included', () => {
  const learned = read('visit,time,route\na,1,/shop\na,900,/items/4\nb,2,/shop\n');
  const { snapshot: amended } = amend(snapshot, withLearned(NO_AMENDMENTS, snapshot, learned));
  const { model } = modelOf(amended);
  expect(model.routes.map((r) => r.landings)).toEqual([0, 1, 0]);
  expect(model.routes[1].moves).toEqual([{ to: '/items/:id', share: 0.5 }]);
  // What the log never met keeps what was said.
  expect(model.routes[0].moves).toEqual([{ to: '/shop', share: 0.6 }]);
});
