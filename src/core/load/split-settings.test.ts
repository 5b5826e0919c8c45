import { ROUND } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { waitFor } from '../explain/wait.ts';
import { BASELINE, type Decision, type Fallback, type SplitSettings } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import type { Route } from '../snapshot/route-types.ts';

const appWith = (more: Partial<Route> = {}) =>
  sketch(
    {
      main: { imports: ['shell', 'page'] },
      shell: {},
      page: { imports: ['~list', '~chart'] },
      chart: { bytes: 200_000 },
      list: { bytes: 3000 },
    },
    { routes: [route('/', 'page', { layouts: [], parts: [part('chart', 'chart'), part('list', 'list')], ...more })] },
  );

const settle = (splitPoint: string, settings: SplitSettings): Decision => ({ kind: 'split', splitPoint, ...settings });

function landing(decisions: Decision[], more: Partial<Route> = {}) {
  const { timeline, program } = predict(appWith(more), { ...BASELINE, decisions }, '/', ROUND);
  const at = (id: string, state: string) => {
    const index = program.parts.findIndex((p) => p.id === id);
    return timeline.reveals.find((r) => r.part === index && r.state === state)?.at;
  };
  return { timeline, program, at };
}

describe('settings of a split point', () => {
  it('may leave nothing in its place, or hold a stand-in for a while', () => {
    const plain = landing([]);
    expect(plain.at('chart', 'stand-in')).toBeDefined();
    const bare = landing([settle('chart', { fallback: { show: 'nothing', holdMs: 0 } })]);
    expect(bare.at('chart', 'stand-in')).toBeUndefined();
    expect(bare.at('chart', 'shown')).toBe(plain.at('chart', 'shown'));
    const held = landing([settle('list', { fallback: { show: 'stand-in', holdMs: 900 } })]);
    const seen = held.at('list', 'stand-in')!;
    expect(held.at('list', 'shown')! - seen).toBeGreaterThanOrEqual(900);
    expect(held.at('list', 'shown')! - seen).toBeLessThan(1000);
  });

  it('may show parts together, with the slowest', () => {
    const alone = landing([]);
    expect(alone.at('list', 'shown')!).toBeLessThan(alone.at('chart', 'shown')! - 50);
    const both = landing([settle('chart', { together: 'both' }), settle('list', { together: 'both' })]);
    expect(Math.abs(both.at('list', 'shown')! - both.at('chart', 'shown')!)).toBeLessThan(60);
    expect(both.at('list', 'shown')!).toBeGreaterThan(alone.at('list', 'shown')!);
  });

  it('may run later than it is fetched: the bytes travel, the thread is free, the wait is short', () => {
    const decisions = [settle('chart', { run: { on: 'action' } })];
    const { timeline } = landing(decisions);
    const request = timeline.requests.find((r) => r.name === 'chart')!;
    expect(request.end).toBeGreaterThan(0);
    expect(request.evaluated).toBeNaN();
    expect(timeline.tasks.some((t) => t.kind === 'evaluate' && t.name === 'chart')).toBe(false);
    const wait = waitFor(appWith(), { ...BASELINE, decisions }, '/', 'chart', ROUND)!.wait;
    expect(wait).toBeGreaterThan(0);
    expect(wait).toBeLessThan(ROUND.link.rttMs);
    const quiet = landing([settle('chart', { run: { on: 'idle' } })]).timeline;
    expect(quiet.requests.find((r) => r.name === 'chart')!.evaluated).toBeGreaterThan(request.end);
  });

  it('may be client only: the server’s document doesn’t list its files, so they come a hop later', () => {
    const server = { rendering: 'server' as const };
    const hop = (decisions: Decision[]) =>
      landing(decisions, server).timeline.requests.find((r) => r.name === 'chart')!.hop;
    expect(hop([])).toBe(1);
    expect(hop([settle('chart', { clientOnly: true })])).toBe(2);
  });

  it('may be shown later than its code has run', () => {
    const late = landing([settle('list', { show: { on: 'after', ms: 700 } })]);
    expect(late.at('list', 'shown')! - landing([]).at('list', 'shown')!).toBeGreaterThan(650);
    expect(landing([settle('list', { show: { on: 'action' } })]).at('list', 'shown')).toBeUndefined();
  });

  it('may have the whole page or app give way: all of it waits for the slowest code', () => {
    const parts = { layouts: ['shell'] };
    const fallback = (scope: 'part' | 'area' | 'app') => [
      settle('chart', { fallback: { show: 'stand-in' as const, holdMs: 0, scope } }),
    ];
    const own = landing(fallback('part'), parts);
    const area = landing(fallback('area'), parts);
    const app = landing(fallback('app'), parts);
    expect(own.at('page', 'shown')!).toBeLessThan(own.at('chart', 'shown')! - 50);
    expect(area.at('page', 'shown')!).toBeGreaterThan(own.at('page', 'shown')! + 50);
    expect(area.at('shell', 'shown')!).toBe(own.at('shell', 'shown')!);
    expect(area.at('page', 'stand-in')!).toBeLessThan(area.at('page', 'shown')!);
    expect(app.at('shell', 'shown')!).toBeGreaterThan(own.at('shell', 'shown')! + 50);
    expect(app.at('shell', 'stand-in')!).toBeLessThan(app.at('shell', 'shown')!);
    expect(app.timeline.moments.firstContent).toBeLessThan(app.at('shell', 'shown')!);
  });

  it('tells when what comes moves the rest, which room kept for it prevents', () => {
    const moves = (show: Fallback['show']) => {
      const decisions = [settle('chart', { fallback: { show, holdMs: 0 } })];
      return predict(appWith({ layouts: ['shell'] }), { ...BASELINE, decisions }, '/', ROUND).reading.readout.moves;
    };
    expect(moves('nothing')).toBe(1);
    expect(moves('reserved space')).toBe(0);
    expect(moves('stand-in')).toBe(0);
  });

  it('has nothing of its own in its place where the page gives way', () => {
    const area = [settle('chart', { fallback: { show: 'stand-in' as const, holdMs: 0, scope: 'area' as const } })];
    const { program, at } = landing(area, { layouts: ['shell'] });
    expect(program.parts.find((p) => p.id === 'chart')!.fallback).toEqual({ show: 'nothing', holdMs: 0 });
    expect(at('chart', 'stand-in')).toBeUndefined();
  });
});
