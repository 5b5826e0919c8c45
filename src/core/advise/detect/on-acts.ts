import type { Decision } from '../../plan/types.ts';
import { importKey } from '../../snapshot/graph-index.ts';
import { shortName } from '../../text/short-name.ts';
import type { CandidateFinding } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

/** Lighter code isn't worth a wait that nobody knows of, in minified bytes. */
const LEAST = 8000;

/** A set of modules that travel together, with the routes that fetch it. */
interface Load {
  name: string;
  modules: ReadonlySet<number>;
  routes: string[];
}

interface Found {
  name: string;
  weight: number;
  imports: Set<number>;
  loads: Load[];
}

/**
 * Packages and modules that come with a start or a split point though all that imports them there uses them in handlers
 * of what people do. As nobody knows how often, or how soon, only fetching them when idle is offered.
 */
export function onlyOnActs(analysis: AnalysisContext): CandidateFinding[] {
  const { snapshot } = analysis;
  const found = new Map<string, Found>();
  for (const load of loadsOf(analysis)) {
    for (const [name, { imports, weight }] of actedOn(analysis, load)) {
      if (weight < LEAST) continue;
      const known = found.get(name) ?? { name, weight, imports: new Set(), loads: [] };
      for (const i of imports) known.imports.add(i);
      known.loads.push(load);
      found.set(name, known);
    }
  }
  return [...found.values()].map(({ name, imports, loads }): CandidateFinding => {
    const edges = [...imports].map((i) => snapshot.imports[i]);
    const [first] = edges;
    const detach = edges.map((e): Decision => ({ kind: 'detach', import: importKey(snapshot, e) }));
    const targets = [...new Set(edges.map((e) => snapshot.modules[e.to].path))];
    const wait = targets.map((splitPoint): Decision => ({ kind: 'trigger', splitPoint, fetch: { on: 'idle' } }));
    const said = loads.length === 1 ? loads[0].name : `${loads.length} starts and split points`;
    return {
      id: `acts ${name}`,
      kind: 'only on acts',
      what: `${name} comes with ${said}, though only acts use it`,
      why: `${shortName(snapshot.modules[first.from].path)} uses it in handlers of what people do, and nowhere else.`,
      evidence: edges.map((e) => ({
        from: snapshot.modules[e.from].path,
        to: snapshot.modules[e.to].path,
        line: e.line,
      })),
      routes: [...new Set(loads.flatMap((l) => l.routes))],
      remedies: [{ words: `detach ${name}, fetch it when idle`, decisions: [...detach, ...wait] }],
    };
  });
}

/** What travels together: the starts of routes, and what split points add to them. */
function loadsOf({ snapshot, starts }: AnalysisContext): Load[] {
  const later = new Map<number, Load>();
  for (const { route, landing } of starts.starts) {
    for (const { root } of landing.later) {
      const { target, need } = starts.graph.roots[root];
      const name = shortName(snapshot.modules[target[0]].path);
      const known = later.get(root) ?? { name, modules: new Set(need), routes: [] };
      known.routes.push(route.pattern);
      later.set(root, known);
    }
  }
  const first = starts.starts.map(
    ({ route, modules }): Load => ({ name: `the start of ${route.pattern}`, modules, routes: [route.pattern] }),
  );
  return [...first, ...later.values()];
}

/** What a load holds and only acts use: packages by their name, the app's own modules by theirs. */
function actedOn(
  { snapshot, index, starts }: AnalysisContext,
  { modules }: Load,
): Map<string, { imports: number[]; weight: number }> {
  const nameOf = (m: number) => snapshot.modules[m].package ?? snapshot.modules[m].path;
  const found = new Map<string, { imports: number[]; weight: number }>();
  const kept = new Set<string>();
  const weights = new Map<string, number>();
  for (const to of modules) {
    const name = nameOf(to);
    weights.set(name, (weights.get(name) ?? 0) + snapshot.modules[to].bytes.minified);
    for (let e = index.inStart[to]; e < index.inStart[to + 1]; e++) {
      const i = index.incoming[e];
      const { from, onActs } = snapshot.imports[i];
      if (starts.plan.deferred[i] || !modules.has(from) || nameOf(from) === name) continue;
      if (!onActs) kept.add(name);
      else found.set(name, { imports: [...(found.get(name)?.imports ?? []), i], weight: 0 });
    }
  }
  for (const [name, own] of found) {
    if (kept.has(name)) found.delete(name);
    else own.weight = weights.get(name)!;
  }
  return found;
}
