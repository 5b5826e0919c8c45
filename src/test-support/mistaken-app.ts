import { seeded } from '../core/sim/random.ts';
import type { Part, Route } from '../core/snapshot/route-types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { part, route, type Sketch, sketch } from './snapshots.ts';

/**
 * A made-up app of several routes (`most` of them at most) with mistakes that people make, placed by chance; the same for the same seed.
 */
export function mistakenApp(seed: number, most = 7): { snapshot: Snapshot; mistakes: string[] } {
  const next = seeded(seed);
  const pick = (most: number) => Math.floor(next() * most);
  const size = (least: number, most: number) => Math.round(least + next() * (most - least));
  const mistakes: string[] = [];
  const modules: Record<string, Sketch> = {
    main: { imports: ['table', 'frame'] },
    table: { imports: [] },
    frame: { imports: [] },
  };
  const routes: Route[] = [];
  const library = (name: string, bytes: number) => {
    modules[name] = { bytes, package: name };
    return name;
  };
  const count = Math.min(most, 4 + pick(4));
  for (let r = 0; r < count; r++) {
    const page = `page${r}`;
    const imports: string[] = [];
    const parts: Part[] = [];
    modules[page] = { bytes: size(4000, 30_000), imports };
    modules.table.imports!.push(r > 0 && next() < 0.8 ? `~${page}` : page);
    if (!modules.table.imports!.includes(`~${page}`) && r > 0) mistakes.push(`${page} is not deferred`);
    const dialog = `dialog${r}`;
    modules[dialog] = { bytes: size(8000, 40_000), imports: [library(`paper${r}`, size(60_000, 400_000))] };
    const deferred = next() < 0.3;
    imports.push(deferred ? `~${dialog}` : dialog);
    if (!deferred) mistakes.push(`${dialog} comes with ${page}`);
    parts.push(part(`dialog${r}`, dialog, { place: 'action', share: 0.05 + next() * 0.3 }));
    if (next() < 0.5) {
      const hero = `hero${r}`;
      modules[hero] = { bytes: size(1000, 3000) };
      imports.push(`~${hero}`);
      parts.push(part(hero, hero));
      mistakes.push(`${hero} is deferred`);
    }
    routes.push(
      route(`/r${r}`, page, {
        layouts: ['frame'],
        parts,
        landings: r === 0 ? 50 : 5 + pick(20),
        links: [`/r${(r + 1) % count}`],
      }),
    );
  }
  if (next() < 0.6) {
    const of = 1 + pick(count - 1);
    const engine = library('engine', size(100_000, 500_000));
    modules[`page${of}`].imports!.push(engine);
    modules.finder = { bytes: 1500, imports: [engine] };
    modules.frame.imports!.push('finder');
    mistakes.push('the frame brings the engine of one route');
  }
  const blocking = next() < 0.5;
  if (blocking) mistakes.push('a script blocks the parser');
  const snapshot = sketch(modules, {
    routes,
    scripts: blocking
      ? [
          {
            id: 'chat',
            name: 'chat',
            address: 'https://talk.example/chat.js',
            bytes: size(20_000, 60_000),
            serverMs: 40,
            evaluationMs: 30,
            placement: 'blocking',
            evidence: null,
          },
        ]
      : [],
  });
  return { snapshot, mistakes };
}
