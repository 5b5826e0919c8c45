import type { Plan } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { type Starts, startsOf } from './starts.ts';

/** A step of an import path: a module, with the line in it that imports the next one. */
export interface PathStep {
  path: string;
  line: number | null;
  deferred: boolean;
}

export interface Whereabouts {
  path: string;
  chunks: string[];
  /** Routes that have it at start, each with the shortest import paths that put it there, one per last importer. */
  atStart: { pattern: string; paths: PathStep[][] }[];
  /** Routes on which a later moment can ask for it. */
  later: string[];
}

const MOST_PATHS = 6;

/** Where a module is and why: its chunks, the routes that have it at start, and the import paths that put it there. */
export function whereabouts(snapshot: Snapshot, plan: Plan, path: string): Whereabouts | null {
  const index = graphIndex(snapshot);
  const module = index.moduleAt.get(path);
  if (module === undefined) return null;
  const all = startsOf(snapshot, plan);
  const { graph, starts } = all;
  return {
    path,
    chunks: graph.chunks.filter((c) => c.modules.includes(module)).map((c) => c.name),
    atStart: starts
      .filter((s) => s.modules.has(module))
      .map((s) => ({ pattern: s.route.pattern, paths: pathsTo(snapshot, all, s.route.pattern, module) })),
    later: starts
      .filter((s) => !s.modules.has(module) && s.landing.later.some((l) => graph.roots[l.root].need.includes(module)))
      .map((s) => s.route.pattern),
  };
}

/** Shortest import paths from the entry to a module over what a route's start holds, one per last importer. */
function pathsTo(snapshot: Snapshot, { plan, starts, graph }: Starts, pattern: string, module: number): PathStep[][] {
  const index = graphIndex(snapshot);
  const { modules, landing } = starts.find((s) => s.route.pattern === pattern)!;
  const asked = new Set(landing.roots.map((l) => graph.roots[l.root].target[0]));
  const came = new Map<number, number>();
  const open = graph.roots[landing.entry].target.filter((m) => modules.has(m));
  for (const m of open) came.set(m, -1);
  const follows = (i: number) => {
    const { to } = snapshot.imports[i];
    return modules.has(to) && (!plan.deferred[i] || asked.has(to));
  };
  for (let next = 0; next < open.length; next++) {
    const m = open[next];
    for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
      const i = index.outgoing[e];
      const { to } = snapshot.imports[i];
      if (!follows(i) || came.has(to)) continue;
      came.set(to, i);
      open.push(to);
    }
  }
  const back = (m: number): PathStep[] => {
    const steps: PathStep[] = [{ path: snapshot.modules[m].path, line: null, deferred: false }];
    for (let via = came.get(m); via !== undefined && via >= 0; via = came.get(snapshot.imports[via].from)) {
      steps.unshift(stepOf(via));
    }
    return steps;
  };
  const stepOf = (i: number): PathStep => ({
    path: snapshot.modules[snapshot.imports[i].from].path,
    line: snapshot.imports[i].line,
    deferred: plan.deferred[i] === 1,
  });
  if (came.get(module) === -1) return [back(module)];
  const paths = new Map<number, PathStep[]>();
  for (let e = index.inStart[module]; e < index.inStart[module + 1]; e++) {
    const i = index.incoming[e];
    const { from } = snapshot.imports[i];
    if (!follows(i) || !came.has(from) || paths.has(from) || from === module) continue;
    const until = back(from).slice(0, -1);
    if (until.some((s) => s.path === snapshot.modules[module].path)) continue;
    paths.set(from, [...until, stepOf(i), { path: snapshot.modules[module].path, line: null, deferred: false }]);
  }
  return [...paths.values()].sort((a, b) => a.length - b.length).slice(0, MOST_PATHS);
}
