import { graphIndex } from '../snapshot/graph-index.ts';
import type { Import } from '../snapshot/module-types.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/**
 * A snapshot in which a module is drawn on the server only. Imports of it from outside give way to imports of what
 * still has to travel: the styles below it, and the interactive parts and deferred pieces inside it, each a split
 * point of its own. Gives the reason in words where that can't be: the module answers to the person, or a route that
 * is rendered in the browser draws it.
 */
export function withoutScript(snapshot: Snapshot, path: string): Snapshot | string {
  const index = graphIndex(snapshot);
  const target = index.moduleAt.get(path);
  if (target === undefined) return `no module ${path} in this snapshot`;
  const parts = snapshot.routes.flatMap((r) => r.parts);
  if (parts.some((p) => p.module === path && p.interactive))
    return `${path} answers to the person, so it needs its script`;
  const chain = snapshot.routes.find((r) => r.page === path || r.layouts.includes(path));
  if (chain) return `${path} is part of the route ${chain.pattern} itself`;
  const drawn = snapshot.routes.find((r) => r.rendering === 'client' && leadsTo(snapshot, r, target));
  if (drawn) return `${drawn.pattern} is rendered in the browser and draws it, so it needs its script there`;

  const answering = new Set(parts.filter((p) => p.interactive).map((p) => p.module));
  const { inside, left } = walk(snapshot, target, answering);
  const imports: Import[] = [];
  const taken = new Set<string>();
  for (const item of snapshot.imports) {
    if (item.to !== target || inside.has(item.from)) {
      imports.push(item);
      continue;
    }
    for (const to of left) {
      const pair = `${item.from} ${to}`;
      if (!taken.has(pair)) imports.push(insteadOf(snapshot, item, to));
      taken.add(pair);
    }
  }
  const routes = snapshot.routes.map((route) => ({
    ...route,
    parts: route.parts.map((p) =>
      p.module === path || (inside.has(index.moduleAt.get(p.module) ?? -1) && !p.interactive)
        ? { ...p, noScript: true as const }
        : p,
    ),
  }));
  return { ...snapshot, imports, routes };
}

/** An import of something that stays, at the place of the import that goes. */
function insteadOf(snapshot: Snapshot, gone: Import, to: number): Import {
  const { path, kind } = snapshot.modules[to];
  const { sync: _, context: __, ...place } = gone;
  const taken = { ...place, to, specifier: path, ordinal: 0, names: [] };
  return kind === 'style' ? { ...taken, kind: 'static' } : { ...taken, kind: 'dynamic', context: 'wrapper' };
}

/** Modules drawn along with the target, and what of theirs still travels: styles, and what answers or is deferred. */
function walk(snapshot: Snapshot, target: number, answering: Set<string>): { inside: Set<number>; left: number[] } {
  const index = graphIndex(snapshot);
  const inside = new Set([target]);
  const left = new Set<number>();
  for (const m of inside) {
    for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
      const { to } = snapshot.imports[index.outgoing[e]];
      const { path, kind } = snapshot.modules[to];
      if (kind === 'style' || answering.has(path)) left.add(to);
      else inside.add(to);
    }
  }
  return { inside, left: [...left] };
}

/** Whether a route's own code leads to a module, deferred imports included; other routes' pages are not followed. */
function leadsTo(snapshot: Snapshot, route: Route, target: number): boolean {
  const index = graphIndex(snapshot);
  const chain = new Set([...route.layouts, route.page].flatMap((path) => index.moduleAt.get(path) ?? []));
  const others = new Set(
    snapshot.routes.flatMap((r) => [...r.layouts, r.page]).flatMap((p) => index.moduleAt.get(p) ?? []),
  );
  const seen = new Set(chain);
  for (const m of seen) {
    for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
      const { to } = snapshot.imports[index.outgoing[e]];
      if (!others.has(to)) seen.add(to);
    }
  }
  return seen.has(target);
}
