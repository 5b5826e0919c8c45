import { type Brought, broughtOnlyBy } from '../../chunks/brought-by.ts';
import { startModules } from '../../chunks/start-modules.ts';
import type { Decision } from '../../plan/types.ts';
import { importKey } from '../../snapshot/graph-index.ts';
import { shortName } from '../../text/short-name.ts';
import type { CandidateFinding } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

/** Lighter code isn't worth a wait that nobody knows of, in minified bytes. */
const LEAST = 8000;

/** A set of modules that travel together, with those that are asked for and the routes that fetch it. */
interface Load {
  name: string;
  roots: readonly number[];
  modules: ReadonlySet<number>;
  routes: string[];
}

interface Found extends Brought {
  loads: Load[];
}

/** Which imports can wait, and for what. */
const KINDS = [
  {
    waits: 'acts',
    later: ({ onActs }: { onActs?: true }) => onActs === true,
    only: 'only acts use it',
    where: 'in handlers of what people do',
    fetch: { on: 'idle' },
    words: 'when idle',
  },
  {
    waits: 'effects',
    later: ({ onActs, onEffects }: { onActs?: true; onEffects?: true }) => onActs === true || onEffects === true,
    only: 'it is used only once something is drawn',
    where: 'in effects, after something was drawn',
    fetch: { on: 'after first paint' },
    words: 'once the screen is drawn',
  },
] as const;
type Kind = (typeof KINDS)[number];

/**
 * What comes with a start or a split point though all that needs it there runs when somebody acts, or once something was
 * drawn: with each import that brings it, all that this carries. As nobody knows how often, or how soon, it is wanted, it is
 * fetched when idle, or once the screen is drawn.
 */
export function onlyOnActs(analysis: AnalysisContext): CandidateFinding[] {
  const loads = loadsOf(analysis);
  const acted = foundIn(analysis, loads, KINDS[0]);
  const drawn = foundIn(analysis, loads, KINDS[1]).filter(({ imports }) => !isKnown(acted, imports));
  return [...findingsOf(analysis, acted, KINDS[0]), ...findingsOf(analysis, drawn, KINDS[1])];
}

function isKnown(known: readonly Found[], imports: readonly number[]): boolean {
  return known.some((k) => k.imports.length === imports.length && k.imports.every((i) => imports.includes(i)));
}

function foundIn(analysis: AnalysisContext, loads: readonly Load[], kind: Kind): Found[] {
  const { imports } = analysis.snapshot;
  const { deferred } = analysis.starts.plan;
  const stays = (i: number) => !deferred[i];
  const waits = (i: number) => kind.later(imports[i]);
  const found: (Found & { head: string })[] = [];
  for (const load of loads)
    for (const freed of broughtOnlyBy(analysis.snapshot, analysis.index, load, stays, waits)) {
      if (freed.weight < LEAST) continue;
      const head = headOf(analysis, freed);
      // The same package that two routes bring by imports of their own is two things to do.
      const known = found.find((f) => f.head === head && f.imports.some((i) => freed.imports.includes(i)));
      if (known) {
        known.imports = [...new Set([...known.imports, ...freed.imports])];
        known.loads.push(load);
      } else found.push({ ...freed, head, loads: [load] });
    }
  return found;
}

/** What a finding is called by: the package that weighs most in it, where that is most of it; else the module that is imported. */
function headOf({ snapshot }: AnalysisContext, { imports, modules, weight }: Brought): string {
  const packages = new Map<string, number>();
  for (const m of modules) {
    const { package: name, bytes } = snapshot.modules[m];
    if (name !== null) packages.set(name, (packages.get(name) ?? 0) + bytes.minified);
  }
  const [heaviest] = [...packages].sort((a, b) => b[1] - a[1]);
  return heaviest && heaviest[1] * 2 > weight ? heaviest[0] : snapshot.modules[snapshot.imports[imports[0]].to].path;
}

/** Each is called by what it is about; several about one thing by the modules that bring it as well. */
function findingsOf(analysis: AnalysisContext, found: readonly Found[], kind: Kind): CandidateFinding[] {
  const findings = found.map((f) => findingOf(analysis, f, kind));
  const times = new Map<string, number>();
  for (const { id } of findings) times.set(id, (times.get(id) ?? 0) + 1);
  return findings.map((f) => (times.get(f.id) === 1 ? f : { ...f, id: `${f.id} in ${f.evidence[0].from}` }));
}

function findingOf(
  analysis: AnalysisContext,
  found: Found,
  { waits, only, where, fetch, words }: Kind,
): CandidateFinding {
  const { snapshot } = analysis;
  const { imports, loads } = found;
  const head = headOf(analysis, found);
  const name = snapshot.modules.some((m) => m.path === head) ? shortName(head) : head;
  const edges = imports.map((i) => snapshot.imports[i]);
  const detach = edges.map((e): Decision => ({ kind: 'detach', import: importKey(snapshot, e) }));
  const targets = [...new Set(edges.map((e) => snapshot.modules[e.to].path))];
  const later = targets.map((splitPoint): Decision => ({ kind: 'trigger', splitPoint, fetch }));
  const said = loads.length === 1 ? loads[0].name : `${loads.length} starts and split points`;
  return {
    id: `${waits} ${head}`,
    kind: 'only on acts',
    what: `${name} comes with ${said}, though ${only}`,
    why: `What ${shortName(snapshot.modules[edges[0].from].path)} brings here is used ${where}, and nowhere else.`,
    evidence: edges.map((e) => ({
      from: snapshot.modules[e.from].path,
      to: snapshot.modules[e.to].path,
      line: e.line,
    })),
    routes: [...new Set(loads.flatMap((l) => l.routes))],
    remedies: [{ words: `detach ${name}, fetch it ${words}`, decisions: [...detach, ...later] }],
  };
}

/** What travels together: the starts of routes, and what split points add to them. */
function loadsOf({ snapshot, starts }: AnalysisContext): Load[] {
  const later = new Map<number, Load>();
  for (const { route, landing } of starts.starts) {
    for (const { root } of landing.later) {
      const { target, need } = starts.graph.roots[root];
      const name = shortName(snapshot.modules[target[0]].path);
      const known = later.get(root) ?? { name, roots: target, modules: new Set(need), routes: [] };
      known.routes.push(route.pattern);
      later.set(root, known);
    }
  }
  const first = starts.starts.map(({ route, landing, modules }): Load => {
    const asked = landing.roots.flatMap(({ root }) => starts.graph.roots[root].target);
    const roots = [...startModules(snapshot, route), ...asked];
    return { name: `the start of ${route.pattern}`, roots, modules, routes: [route.pattern] };
  });
  return [...first, ...later.values()];
}
