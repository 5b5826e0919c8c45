import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { effectivePlan } from '../plan/effective.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { followLanding } from './landing.ts';
import { happensOnLanding } from './trigger-rules.ts';

function landed(snapshot: Snapshot, pattern: string, ...decisions: Decision[]) {
  const plan = { ...BASELINE, decisions };
  const graph = planned(snapshot, plan).graph;
  const landing = followLanding(
    snapshot,
    effectivePlan(snapshot, plan),
    graph,
    snapshot.routes.find((r) => r.pattern === pattern)!,
  );
  const name = (root: number) =>
    graph.roots[root].kind === 'entry' ? 'entry' : snapshot.modules[graph.roots[root].target[0]].path;
  return {
    now: landing.roots.map((l) => [name(l.root), l.trigger.on]),
    later: landing.later.map((l) => [name(l.root), l.trigger.on]),
  };
}

describe('followLanding', () => {
  it('fetches each part when its place or the code around it says', () => {
    const snapshot = sketch(
      {
        main: { imports: ['page'] },
        page: { imports: ['~first', '~below', '~press', '~wide', '~asked', '~crew', '~plain'] },
        first: {},
        below: {},
        press: {},
        wide: {},
        asked: {},
        crew: {},
        plain: {},
      },
      {
        routes: [
          route('/', 'page', {
            parts: [
              part('first', 'first'),
              part('below', 'below', { place: 'below' }),
              part('press', 'press', { place: 'action' }),
              part('wide', 'wide', { place: 'conditional', condition: { kind: 'media', minWidth: 900 } }),
              part('asked', 'asked', { place: 'conditional', condition: { kind: 'answer', of: 'call' } }),
              part('crew', 'crew', { place: 'conditional', condition: { kind: 'segment', segment: 'crew' } }),
            ],
          }),
        ],
      },
    );
    const { now, later } = landed(snapshot, '/');
    expect(now).toEqual([
      ['entry', 'at once'],
      ['first', 'at once'],
      ['wide', 'media'],
      ['plain', 'at once'],
    ]);
    expect(later).toEqual([
      ['below', 'visible'],
      ['press', 'action'],
      ['asked', 'answer'],
      ['crew', 'event'],
    ]);
    expect(
      landed(snapshot, '/', { kind: 'trigger', splitPoint: 'below', fetch: { on: 'after', ms: 5 } }).now,
    ).toContainEqual(['below', 'after']);
  });

  it('takes a deferred import in an event handler for an action', () => {
    const snapshot = sketch(
      { main: { imports: ['page'] }, page: { imports: ['~dialog'], context: 'handler' }, dialog: {} },
      { routes: [route('/', 'page')] },
    );
    expect(landed(snapshot, '/')).toEqual({ now: [['entry', 'at once']], later: [['dialog', 'action']] });
  });

  it('leaves other routes alone, even where they share a file', () => {
    const snapshot = sketch(
      { main: { imports: ['one', 'two', '~three'] }, one: {}, two: { imports: ['~deep'] }, three: {}, deep: {} },
      { routes: [route('/1', 'one'), route('/2', 'two'), route('/3', 'three')] },
    );
    expect(landed(snapshot, '/1').now).toEqual([['entry', 'at once']]);
    expect(landed(snapshot, '/2').now).toEqual([
      ['entry', 'at once'],
      ['deep', 'at once'],
    ]);
    expect(landed(snapshot, '/3').now).toEqual([
      ['entry', 'at once'],
      ['three', 'at once'],
    ]);
  });

  it('brings the files on the way to a page that only another page leads to', () => {
    const snapshot = sketch(
      { main: { imports: ['~list'] }, list: { imports: ['~detail', '~extra'] }, detail: {}, extra: {} },
      { routes: [route('/list', 'list'), route('/list/:id', 'detail')] },
    );
    expect(landed(snapshot, '/list/:id').now).toEqual([
      ['entry', 'at once'],
      ['list', 'at once'],
      ['detail', 'at once'],
    ]);
  });

  it('is empty where the route’s realm has no entry', () => {
    const snapshot = sketch({ main: {} }, { routes: [route('/', 'main', { realm: 'admin' })] });
    expect(landed(snapshot, '/').now).toEqual([]);
  });

  it('knows which triggers fire by themselves', () => {
    expect(happensOnLanding({ on: 'idle' })).toBe(true);
    expect(happensOnLanding({ on: 'approach' })).toBe(false);
  });
});
