import fs from 'node:fs';
import { planned } from '../core/chunks/planned.ts';
import { startModules } from '../core/chunks/start-modules.ts';
import { effectivePlan } from '../core/plan/effective.ts';
import { BASELINE } from '../core/plan/types.ts';
import { partInWords, styleNames, styleSample } from '../test-support/styles.mjs';
import { readSource } from './read-source.ts';

describe.each(styleNames())('an app in the style of %s', (name) => {
  const { folder, expected } = styleSample(name);
  const { snapshot } = readSource(folder);
  afterAll(() => fs.rmSync(folder, { recursive: true }));

  it('has its routes with layouts and pages', () => {
    expect(snapshot.routes.map(({ pattern, layouts, page }) => ({ pattern, layouts, page }))).toEqual(expected.routes);
  });

  it('defers what its code defers', () => {
    const targets = snapshot.imports.filter((i) => i.kind === 'dynamic').map((i) => snapshot.modules[i.to].path);
    expect([...new Set(targets)].sort()).toEqual(expected.deferred);
  });

  it('starts each route with what it needs', () => {
    const graph = planned(snapshot, BASELINE).graph;
    const { deferred } = effectivePlan(snapshot, BASELINE);
    const startOf = (pattern: string) => {
      const route = snapshot.routes.find((r) => r.pattern === pattern)!;
      const start = new Set(startModules(snapshot, route));
      for (const m of start)
        snapshot.imports.forEach(({ from, to }, i) => {
          if (from === m && !deferred[i]) start.add(to);
        });
      return [...start].map((m) => snapshot.modules[m].path);
    };
    for (const [pattern, modules] of Object.entries(expected.starts ?? {}))
      expect({ pattern, start: startOf(pattern) }).toEqual({ pattern, start: expect.arrayContaining(modules) });
    for (const [pattern, modules] of Object.entries(expected.notInStart ?? {}))
      for (const m of modules) expect(startOf(pattern)).not.toContain(m);
    const weights = new Map(snapshot.modules.map((m) => [m.path, m.bytes.minified]));
    for (const m of expected.weightless ?? []) expect([m, weights.get(m)]).toEqual([m, 0]);
    for (const m of expected.weighty ?? []) expect([m, (weights.get(m) ?? 0) > 0]).toEqual([m, true]);
    for (const m of expected.notThere ?? []) expect([m, weights.has(m)]).toEqual([m, false]);
    const statics = snapshot.imports.filter((i) => i.kind === 'static').map((i) => snapshot.modules[i.to].path);
    expect(statics).toEqual(expect.arrayContaining(expected.thereAtStart ?? []));
    const workers = snapshot.entries.filter((e) => e.kind === 'worker').flatMap((e) => e.modules);
    expect(workers.sort()).toEqual(expected.workers ?? []);
    expect(graph.chunks.length).toBeGreaterThan(0);
  });

  it('shows its parts where and when they are drawn', () => {
    const parts = snapshot.routes.map((r) => [r.pattern, r.parts.map(partInWords)]);
    if (expected.parts) expect(Object.fromEntries(parts)).toEqual(expected.parts);
  });

  it('says nothing that only stands for what is found out later', () => {
    const said = [...snapshot.routes, ...snapshot.proposals].flatMap((r) => r.parts.flatMap((p) => p.action ?? []));
    expect(said.filter((words) => /\p{Co}/u.test(words))).toEqual([]);
  });

  it('tells what isn’t understood, and nothing else', () => {
    const told = [
      ...snapshot.failed.map((f) => `${f.path}:${f.line}: ${f.message}`),
      ...snapshot.unresolved.filter((u) => !u.leftOut).map((u) => `${u.from}:${u.line}: ${u.specifier}`),
    ];
    expect(told.map((t, i) => (expected.told[i] && t.startsWith(expected.told[i]) ? expected.told[i] : t))).toEqual(
      expected.told,
    );
  });
});
