import fc from 'fast-check';
import type { Decision, Match, Plan } from '../core/plan/types.ts';
import { type Conditions, DEVICES } from '../core/sim/conditions.ts';
import type { ScriptPlacement } from '../core/snapshot/document-types.ts';
import { importKey } from '../core/snapshot/graph-index.ts';
import type { PartPlace, Route } from '../core/snapshot/route-types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { HINT_KINDS, HINT_PLACES, type HintTarget } from '../core/vocabulary/hints.ts';
import type { Trigger, TriggerKind } from '../core/vocabulary/triggers.ts';
import { anyApp, part } from './snapshots.ts';

const PLACES: PartPlace[] = ['first screen', 'below', 'action', 'conditional'];
const PLACEMENTS: ScriptPlacement[] = ['blocking', 'async', 'defer', 'module', 'end of body', 'after load', 'inlined'];

/** Takes numbers one after another, and begins again at the end: choices that shrink well. */
class Picks {
  private at = 0;
  constructor(private readonly from: readonly number[]) {}
  upTo(most: number): number {
    return this.from.length === 0 || most <= 0 ? 0 : this.from[this.at++ % this.from.length] % most;
  }
  of<T>(all: readonly T[]): T {
    return all[this.upTo(all.length)];
  }
  often(): boolean {
    return this.upTo(3) > 0;
  }
}

/** Random apps with all that stands on routes: parts of every place, data calls, images, classic scripts, both renderings. */
export function anyLivedApp(most = 16): fc.Arbitrary<Snapshot> {
  return fc.tuple(anyApp(most), fc.array(fc.nat(), { minLength: 4, maxLength: 40 })).map(([app, numbers]) => {
    const picks = new Picks(numbers);
    const scripts = app.modules.filter((m) => m.kind === 'script').map((m) => m.path);
    const routes = app.routes.map((route): Route => {
      const data = Array.from({ length: picks.upTo(3) }, (_, i) => ({
        id: `call${i}`,
        address: `/api${route.pattern}/${i}`,
        bytes: 500 + picks.upTo(4000),
        serverMs: picks.upTo(200),
        module: picks.of(scripts),
      }));
      const content = Array.from({ length: picks.upTo(2) }, (_, i) => ({
        id: `image${i}`,
        kind: 'image' as const,
        address: `/img${route.pattern}/${i}.jpg`,
        bytes: 1000 + picks.upTo(40_000),
        serverMs: 5,
        foundIn: picks.often() ? ('document' as const) : { module: picks.of(scripts) },
        place: picks.often() ? ('first screen' as const) : ('below' as const),
        lazy: !picks.often(),
      }));
      const own = new Set([...route.layouts, route.page, scripts[0]]);
      const drawn = [...new Set(Array.from({ length: picks.upTo(5) }, () => picks.of(scripts)))].filter(
        (m) => !own.has(m),
      );
      const parts = drawn.map((module, i) => {
        const place = picks.of(PLACES);
        const sized = picks.often();
        return part(`part${i}`, module, {
          place,
          interactive: picks.often(),
          share: (1 + picks.upTo(10)) / 10,
          needs: picks.often() ? [] : [...data, ...content].slice(0, 1).map((d) => d.id),
          ...(place === 'action' ? { action: 'press' } : {}),
          ...(place === 'conditional'
            ? {
                condition: sized
                  ? { kind: 'media' as const, maxWidth: 600 }
                  : { kind: 'segment' as const, segment: 's' },
              }
            : {}),
        });
      });
      return {
        ...route,
        rendering: picks.often() ? 'client' : 'server',
        data,
        content,
        parts,
        links: app.routes.map((r) => r.pattern),
      };
    });
    const classic = Array.from({ length: picks.upTo(3) }, (_, i) => ({
      id: `script${i}`,
      name: `script ${i}`,
      address: `https://other.example/${i}.js`,
      bytes: 500 + picks.upTo(30_000),
      serverMs: 20,
      evaluationMs: picks.upTo(80),
      placement: picks.of(PLACEMENTS),
      evidence: null,
    }));
    return { ...app, routes, scripts: classic };
  });
}

function anyTrigger(app: Snapshot, picks: Picks): Trigger {
  const calls = app.routes.flatMap((r) => r.data.map((d) => d.id));
  const all: { [K in TriggerKind]: Extract<Trigger, { on: K }> } = {
    'at once': { on: 'at once' },
    'after first paint': { on: 'after first paint' },
    idle: { on: 'idle' },
    visible: { on: 'visible' },
    approach: { on: 'approach' },
    action: { on: 'action' },
    after: { on: 'after', ms: picks.upTo(3000) },
    media: { on: 'media', maxWidth: 600 },
    answer: { on: 'answer', of: calls[0] ?? 'nothing' },
    event: { on: 'event', name: 'shout' },
  };
  return picks.of<Trigger>(Object.values(all));
}

type Make = (app: Snapshot, picks: Picks) => Decision;
const moduleOf = (app: Snapshot, picks: Picks) => picks.of(app.modules).path;
const keyOf = (app: Snapshot, picks: Picks) =>
  app.imports.length > 0 ? importKey(app, picks.of(app.imports)) : 'nothing::nothing';
const matchOf = (app: Snapshot, picks: Picks): Match => ({ path: moduleOf(app, picks) });
const choiceOf = (app: Snapshot, picks: Picks) =>
  picks.often() ? { import: keyOf(app, picks) } : { module: moduleOf(app, picks) };

/** A decision of every kind, about something that the app has: a new kind is told here by the compiler. */
const DECISIONS: Record<Decision['kind'], Make> = {
  detach: (app, picks) => ({ kind: 'detach', ...choiceOf(app, picks) }),
  join: (app, picks) => ({ kind: 'join', ...choiceOf(app, picks) }),
  trigger: (app, picks) => ({ kind: 'trigger', splitPoint: moduleOf(app, picks), fetch: anyTrigger(app, picks) }),
  split: (app, picks) => ({
    kind: 'split',
    splitPoint: moduleOf(app, picks),
    ...(picks.often() ? {} : { run: anyTrigger(app, picks) }),
    ...(picks.often() ? {} : { show: anyTrigger(app, picks) }),
    ...(picks.often() ? {} : { clientOnly: true }),
    ...(picks.often() ? {} : { together: 'g' }),
    ...(picks.often() ? {} : { data: 'with the code' as const }),
    ...(picks.often() ? {} : { answerAhead: { keepMs: 5000 } }),
    ...(picks.often()
      ? {}
      : {
          fallback: { show: picks.of(['nothing', 'reserved space', 'stand-in', 'old screen'] as const), holdMs: 100 },
        }),
  }),
  hint: (app, picks) => {
    const scripts = app.scripts.map((s): HintTarget => ({ kind: 'asset', address: s.address }));
    const targets: HintTarget[] = [
      { kind: 'split point', module: moduleOf(app, picks) },
      { kind: 'route', pattern: picks.of(app.routes).pattern },
      ...scripts,
    ];
    const kind = picks.of(HINT_KINDS);
    const target: HintTarget =
      kind === 'preconnect'
        ? { kind: 'origin', origin: 'https://other.example' }
        : kind === 'prefetch document' || kind === 'prepare document'
          ? targets[1]
          : picks.of(targets);
    const place = picks.of(HINT_PLACES);
    return {
      kind: 'hint',
      hint: {
        ...{ kind, target, place, routes: [] },
        ...(place === 'script' ? { on: anyTrigger(app, picks) } : {}),
        ...(kind === 'fetch priority' ? { priority: 'low' as const } : {}),
      },
    };
  },
  script: (app, picks) => ({
    kind: 'script',
    script: app.scripts[0]?.id ?? 'none',
    placement: picks.of(PLACEMENTS),
  }),
  loader: (_, picks) => ({ kind: 'loader', loader: picks.of(['listed', 'discovered'] as const) }),
  'drop link': () => ({ kind: 'drop link', rel: 'preload', address: '/none.js' }),
  'put aside': () => ({ kind: 'put aside', finding: 'x', reason: '' }),
  'no script': (app, picks) => ({ kind: 'no script', module: moduleOf(app, picks) }),
  trim: (app, picks) => ({ kind: 'trim', module: moduleOf(app, picks) }),
  move: (app, picks) => ({ kind: 'move', import: keyOf(app, picks), to: moduleOf(app, picks) }),
  'one version': () => ({ kind: 'one version', package: 'none', keep: 'none' }),
  'style in script': (app, picks) => ({ kind: 'style in script', match: matchOf(app, picks) }),
  gather: (app, picks) => ({ kind: 'gather', name: 'gathered', match: matchOf(app, picks) }),
  together: (app, picks) => ({ kind: 'together', modules: [moduleOf(app, picks), moduleOf(app, picks)] }),
  apart: (app, picks) => ({ kind: 'apart', match: matchOf(app, picks) }),
  floor: (_, picks) => ({ kind: 'floor', bytes: picks.upTo(8000) }),
  ceiling: (_, picks) => ({ kind: 'ceiling', requests: 1 + picks.upTo(6) }),
  copy: (_, picks) => ({ kind: 'copy', below: picks.upTo(3000) }),
  grain: () => ({ kind: 'grain' }),
  'chunk name': () => ({ kind: 'chunk name', chunk: 'none', name: 'named' }),
};

const KINDS = Object.keys(DECISIONS) as Decision['kind'][];

/** Plans of decisions of every kind over an app, as numbers pick them. */
export function planBy(app: Snapshot, numbers: readonly number[], most = 6): Plan {
  const picks = new Picks(numbers);
  const decisions = Array.from({ length: 1 + picks.upTo(most) }, () => DECISIONS[picks.of(KINDS)](app, picks));
  return { name: 'Any', description: '', decisions };
}

/** Numbers that make a plan. */
export const anyPicks = fc.array(fc.nat(), { minLength: 3, maxLength: 40 });

/** Links, devices and caches of every kind. */
export const anyConditions: fc.Arbitrary<Conditions> = fc.record({
  link: fc.record({
    id: fc.constant('any'),
    name: fc.constant('any'),
    protocol: fc.constantFrom('h1' as const, 'h2' as const, 'h3' as const),
    tls: fc.constantFrom('none' as const, '1.2' as const, '1.3' as const),
    rttMs: fc.integer({ min: 1, max: 800 }),
    downKbps: fc.integer({ min: 50, max: 100_000 }),
    upKbps: fc.integer({ min: 50, max: 50_000 }),
    dnsMs: fc.integer({ min: 0, max: 200 }),
    serverScheduling: fc.constantFrom('fifo' as const, 'urgency' as const),
  }),
  device: fc.constantFrom(...DEVICES),
  cache: fc.constantFrom('empty' as const, 'returning' as const),
});
