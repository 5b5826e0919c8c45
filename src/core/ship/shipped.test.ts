import fc from 'fast-check';
import { ROUND } from '../../test-support/programs.ts';
import { anyApp, part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { shipped, troublesOf } from './shipped.ts';

const app = sketch(
  {
    main: { imports: ['page', 'base.css'] },
    page: { imports: ['facts', 'framework'] },
    facts: { imports: ['facts.css', 'format', 'like', '~map'], bytes: 40_000 },
    format: { bytes: 30_000 },
    like: { imports: ['framework'], bytes: 2000 },
    map: { imports: ['framework'], bytes: 90_000 },
    framework: { bytes: 50_000 },
    'base.css': { kind: 'style', bytes: 9000 },
    'facts.css': { kind: 'style', bytes: 3000 },
  },
  {
    routes: [
      route('/', 'page', {
        rendering: 'server',
        parts: [
          part('facts', 'facts', { interactive: false }),
          part('like', 'like'),
          part('map', 'map', { place: 'action' }),
        ],
      }),
    ],
    unusedRules: [
      { module: 'base.css', line: 3, selector: '.gone', bytes: 6000, missing: ['gone'] },
      { module: 'base.css', line: 9, selector: '.also', bytes: 600, missing: ['also'] },
    ],
  },
);

const planOf = (...decisions: Decision[]): Plan => ({ ...BASELINE, decisions });
const noScript: Decision = { kind: 'no script', module: 'facts' };

function needs(snapshot: Snapshot, plan: Plan): Record<string, string[]> {
  const { snapshot: now } = shipped(snapshot, plan);
  const path = (m: number) => now.modules[m].path;
  return Object.fromEntries(
    planned(now, plan).graph.roots.map((r) => [r.id.replace('site:', ''), [...r.need].map(path).sort()]),
  );
}

describe('parts drawn on the server only', () => {
  it('leave the start with what only they use; what answers inside becomes a split point, styles stay', () => {
    expect(needs(app, BASELINE).entry).toContain('format');
    const after = needs(app, planOf(noScript));
    expect(after.entry).toEqual(['base.css', 'facts.css', 'framework', 'main', 'page']);
    expect(after.like).toEqual(['like']);
    expect(after.map).toEqual(['map']);
  });

  it('are still drawn by the document, ask for nothing and never answer', () => {
    const plan = planOf(noScript);
    const { timeline, program, reading } = predict(shipped(app, plan).snapshot, plan, '/', ROUND);
    const index = program.parts.findIndex((p) => p.id === 'facts');
    expect(program.parts[index]).toMatchObject({ drawnBy: 'document', needs: [], interactive: false });
    expect(timeline.reveals.filter((r) => r.part === index).map((r) => r.state)).toEqual(['shown']);
    expect(timeline.reveals.some((r) => program.parts[r.part].id === 'like' && r.state === 'answering')).toBe(true);
    const before = predict(app, BASELINE, '/', ROUND);
    expect(reading.readout.startBytes).toBeLessThan(before.reading.readout.startBytes - 20_000);
  });

  it('take along what they draw at any remove, and leave once what answers in there', () => {
    const deep = sketch(
      {
        main: { imports: ['page'] },
        page: { imports: ['facts', 'facts'] },
        facts: { imports: ['table', 'note'] },
        table: { imports: ['row', 'table.css'] },
        row: { imports: ['like'], bytes: 7000 },
        note: { imports: ['like', 'table.css'] },
        like: { bytes: 2000 },
        'table.css': { kind: 'style' },
      },
      {
        routes: [
          route('/', 'page', {
            rendering: 'server',
            parts: [
              part('facts', 'facts', { interactive: false }),
              part('row', 'row', { interactive: false }),
              part('like', 'like'),
            ],
          }),
        ],
      },
    );
    const { snapshot } = shipped(deep, planOf(noScript));
    const made = snapshot.imports.filter((i) => snapshot.modules[i.from].path === 'page');
    expect(made.map((i) => [snapshot.modules[i.to].path, i.kind, i.context])).toEqual([
      ['table.css', 'static', undefined],
      ['like', 'dynamic', 'wrapper'],
    ]);
    expect(snapshot.routes[0].parts.map((p) => p.noScript ?? false)).toEqual([true, true, false]);
    expect(needs(deep, planOf(noScript)).entry).toEqual(['main', 'page', 'table.css']);
  });

  it('can’t be parts that answer, the page itself, or drawn by a route that the browser renders', () => {
    const reasonOf = (snapshot: Snapshot, module: string) =>
      troublesOf(snapshot, planOf({ kind: 'no script', module })).stale.map((s) => s.reason);
    expect(reasonOf(app, 'like')).toEqual(['like answers to the person, so it needs its script']);
    expect(reasonOf(app, 'page')).toEqual(['page is part of the route / itself']);
    expect(reasonOf(app, 'lost')).toEqual(['no module lost in this snapshot']);
    const inBrowser = { ...app, routes: app.routes.map((r) => ({ ...r, rendering: 'client' as const })) };
    expect(reasonOf(inBrowser, 'facts')).toEqual([
      '/ is rendered in the browser and draws it, so it needs its script there',
    ]);
    expect(shipped(inBrowser, planOf(noScript)).snapshot).toBe(inBrowser);
  });

  it('tell of a decision about an import that goes with them', () => {
    const { stale } = troublesOf(app, planOf({ kind: 'detach', import: 'page::facts' }, noScript));
    expect(stale).toEqual([{ decision: 0, reason: 'page::facts goes: its script doesn’t travel in this plan' }]);
  });

  it('never bring a module that wasn’t there, and doing it twice changes nothing more', () => {
    fc.assert(
      fc.property(anyApp(), fc.nat(), (any, pick) => {
        const inner = any.modules[pick % any.modules.length].path;
        const served = { ...any, routes: any.routes.map((r) => ({ ...r, rendering: 'server' as const })) };
        const plan = planOf({ kind: 'no script', module: inner });
        const { snapshot } = shipped(served, plan);
        const all = (s: Snapshot) => new Set(Object.values(needs(s, BASELINE)).flat());
        const before = all(served);
        for (const path of all(snapshot)) expect(before.has(path)).toBe(true);
        expect(needs(shipped(snapshot, plan).snapshot, BASELINE)).toEqual(needs(snapshot, BASELINE));
      }),
    );
  });
});

describe('styles', () => {
  it('are trimmed of the rules that nothing can use, once', () => {
    const plan = planOf({ kind: 'trim', module: 'base.css' });
    const { snapshot } = shipped(app, plan);
    const { bytes } = snapshot.modules[7];
    expect(bytes).toMatchObject({ minified: 2400, source: 4800, marginal: 800 });
    expect(snapshot.unusedRules).toEqual([]);
    expect(shipped(snapshot, plan).snapshot).toBe(snapshot);
    expect(troublesOf(app, planOf({ kind: 'trim', module: 'facts.css' })).stale[0].reason).toBe(
      'no rule of facts.css is unused',
    );
  });

  it('that weigh nothing, or less than their unused rules, come to nothing', () => {
    const of = (minified: number) => {
      const modules = app.modules.map((m) =>
        m.path === 'base.css' ? { ...m, bytes: { ...m.bytes, source: 10, minified } } : m,
      );
      return shipped({ ...app, modules }, planOf({ kind: 'trim', module: 'base.css' })).snapshot.modules[7].bytes;
    };
    expect(of(0)).toMatchObject({ source: 0, minified: 0, gzip: 0, marginal: 0 });
    expect(of(6000)).toMatchObject({ source: 0, minified: 0 });
    expect(of(13_200)).toMatchObject({ source: 5, minified: 6600 });
  });

  it('are worked out once for the plan at hand and the few before it', () => {
    const at = (n: number) => planOf({ kind: 'trim', module: 'base.css' }, { kind: 'floor', bytes: n });
    const [first] = [0].map((n) => shipped(app, at(n)).snapshot);
    expect(shipped(app, at(0)).snapshot).toBe(first);
    // What isn’t about modules makes no other snapshot.
    expect(shipped(app, planOf({ kind: 'trim', module: 'base.css' }, { kind: 'floor', bytes: 9 })).snapshot).toBe(
      first,
    );
    for (let n = 0; n < 9; n++) {
      const noise = Array.from({ length: n + 1 }, () => ({ kind: 'floor' as const, bytes: 1 }));
      shipped(app, planOf(...noise, { kind: 'trim', module: 'base.css' }));
    }
    expect(shipped(app, at(0)).snapshot).not.toBe(first);
  });

  it('travel in script where the plan says so, and then don’t block the first paint', () => {
    const plan = planOf({ kind: 'style in script', match: { path: '*.css' } });
    const { snapshot } = shipped(app, plan);
    expect(planned(snapshot, plan).graph.chunks.every((c) => c.kind === 'script')).toBe(true);
    const before = predict(app, BASELINE, '/', ROUND).timeline.moments.firstContent;
    expect(predict(snapshot, plan, '/', ROUND).timeline.moments.firstContent).toBeLessThan(before);
    const lost = planOf({ kind: 'style in script', match: { package: 'none' } });
    expect(troublesOf(app, lost).stale).toEqual([{ decision: 0, reason: 'none matches no style sheet' }]);
  });

  it('are settled once per set of decisions, whatever else the plan says', () => {
    const trim: Decision = { kind: 'trim', module: 'base.css' };
    const { snapshot } = shipped(app, planOf(trim));
    expect(shipped(app, planOf(trim, { kind: 'loader', loader: 'discovered' })).snapshot.modules).toEqual(
      snapshot.modules,
    );
    expect(shipped(app, planOf({ kind: 'grain' })).snapshot).toBe(app);
  });
});
