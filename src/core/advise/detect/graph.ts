import type { Decision } from '../../plan/types.ts';
import { importKey } from '../../snapshot/graph-index.ts';
import { shortName } from '../../text/short-name.ts';
import type { CandidateFinding } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

/** So many deferred pieces, one inside another, are a chain of waits. */
const DEEP = 3;

/** Deferred pieces that only deferred pieces ask for, three deep or more: each asks only when the one before has run. */
export function nestedSplits(analysis: AnalysisContext): CandidateFinding[] {
  const { snapshot, starts } = analysis;
  const { graph } = starts;
  const own = new Set(snapshot.routes.flatMap((r) => [...r.layouts, r.page]));
  const pathOf = (root: number) => snapshot.modules[graph.roots[root].target[0]]?.path ?? '';
  const isOuter = (root: number) => graph.roots[root].kind !== 'split point' || own.has(pathOf(root));
  const ways = new Map<number, number[]>();
  const chainTo = (root: number, below: readonly number[]): number[] => {
    if (isOuter(root) || below.includes(root)) return [];
    const cached = ways.get(root);
    if (cached) return cached;
    const askers = graph.roots[root].askedBy.map((by) => chainTo(by.root, [...below, root]));
    // The shortest way is the one that comes first.
    const [shortest = []] = askers.sort((a, b) => a.length - b.length);
    const chain = [...shortest, root];
    ways.set(root, chain);
    return chain;
  };
  const deep = graph.roots.flatMap((_, root) => {
    const chain = chainTo(root, []);
    return chain.length >= DEEP ? [chain] : [];
  });
  // Of chains that go on only the longest is told.
  const ends = deep.filter((c) => !deep.some((d) => d.length > c.length && c.every((r, i) => d[i] === r)));
  return ends.map((chain): CandidateFinding => {
    const modules = chain.map((root) => graph.roots[root].target[0]);
    const inner = modules.slice(1).map((m) => analysis.deferredTo(m));
    const joins = (of: typeof inner): Decision[] =>
      of.flat().map(({ key }) => ({ kind: 'join', import: importKey(snapshot, snapshot.imports[key]) }));
    const names = modules.map((m) => shortName(snapshot.modules[m].path));
    return {
      id: `nested ${snapshot.modules[modules.at(-1)!].path}`,
      kind: 'nested splits',
      what: `${names.at(-1)} stands ${chain.length} splits deep`,
      why: `${names.join(', then ')}: each is asked for only when the one before has run.`,
      evidence: inner.flat().map((a) => a.evidence),
      routes: snapshot.routes
        .filter((r) => r.parts.some((p) => modules.includes(analysis.module(p.module))))
        .map((r) => r.pattern),
      remedies: [
        { words: `join ${names.at(-1)} to ${names.at(-2)}`, decisions: joins(inner.slice(-1)) },
        { words: `join all of it to ${names[0]}`, decisions: joins(inner) },
      ],
    };
  });
}

/** Packages that are there in more than one version: each of them is tried alone. */
export function twoVersions(analysis: AnalysisContext): CandidateFinding[] {
  const { snapshot, starts } = analysis;
  const folders = new Map<string, { folder: string; version: string | null }[]>();
  for (const { name, folder, version } of snapshot.packages) {
    const own = folders.get(name) ?? [];
    // What travels nowhere doubles nothing.
    if (snapshot.modules.some((m) => m.package === name && m.path.startsWith(`${folder}/`)))
      folders.set(name, [...own, { folder, version }]);
  }
  return [...folders].flatMap(([name, versions]): CandidateFinding[] => {
    if (versions.length < 2) return [];
    // Who brings the one that is installed inside of another package stands first: that is the one too many, mostly.
    const deepFirst = [...versions].sort((a, b) => b.folder.length - a.folder.length);
    const brings = deepFirst.flatMap(({ folder }) =>
      analysis.bringing(snapshot.modules.flatMap((m, at) => (m.path.startsWith(`${folder}/`) ? [at] : []))).slice(0, 1),
    );
    const own = versions.filter(({ folder }) => isOwnChoice(analysis, folder));
    const wanted = own.reduce<string | null>(
      (newest, v) => (newest === null || isOlder(newest, v.version) ? v.version : newest),
      null,
    );
    const has = new Set(snapshot.modules.flatMap((m, at) => (m.package === name ? [at] : [])));
    return [
      {
        id: `versions ${name}`,
        kind: 'two versions',
        what: `${name} is there ${versions.length} times`,
        why: `${versions.map((v) => `${v.version ?? 'no version'} in ${v.folder}`).join('; ')}. Who uses both carries both.`,
        evidence: brings,
        routes: starts.starts.filter((s) => [...has].some((m) => s.modules.has(m))).map((s) => s.route.pattern),
        remedies: versions
          .filter((v) => !isOlder(v.version, wanted))
          .map((v) => ({
            words: `use only ${v.version ?? v.folder}`,
            decisions: [{ kind: 'one version', package: name, keep: v.folder }],
          })),
      },
    ];
  });
}

/** Whether the app's own code imports a package from a folder. */
function isOwnChoice({ snapshot }: AnalysisContext, folder: string): boolean {
  const { modules, imports } = snapshot;
  return imports.some((i) => modules[i.from].package === null && modules[i.to].path.startsWith(`${folder}/`));
}

/** Whether a version comes before another one (by its numbers, as in semantic versioning); what isn't known is no reason against it. */
function isOlder(version: string | null, than: string | null): boolean {
  if (version === null || than === null) return false;
  const [a, b] = [version, than].map((v) => v.split(/[.+-]/).map(Number));
  for (let at = 0; at < 3; at++) if (a[at] !== b[at]) return a[at] < b[at];
  return false;
}

/** Shared code that the plan copies into every file that needs it. */
export function copies({ snapshot, plan }: AnalysisContext): CandidateFinding[] {
  const made = plan.decisions.find((d) => d.kind === 'copy');
  if (made?.kind !== 'copy') return [];
  return [
    {
      id: 'copies',
      kind: 'copies',
      what: `shared code below ${made.below / 1000} kB is copied`,
      why: 'Who visits several routes fetches it several times.',
      evidence: [],
      routes: snapshot.routes.map((r) => r.pattern),
      remedies: [{ words: 'share it', decisions: [], withdraw: ['copy'] }],
    },
  ];
}

/** So many packages, the heaviest, are taken out of files with the app's own code. */
const MOST_APART = 5;
const LEAST_APART = 8000;

/** Packages that share files with the app's own code: every deploy makes people who return fetch them again. */
export function mixedByDeploys(analysis: AnalysisContext): CandidateFinding[] {
  const { snapshot, plan, starts } = analysis;
  const weights = new Map<string, number>();
  for (const { modules } of starts.graph.chunks) {
    if (!modules.some((m) => snapshot.modules[m].package === null)) continue;
    for (const m of modules) {
      const { package: name, bytes } = snapshot.modules[m];
      if (name !== null) weights.set(name, (weights.get(name) ?? 0) + bytes.minified);
    }
  }
  const apart = new Set(
    plan.decisions.flatMap((d) =>
      (d.kind === 'apart' || d.kind === 'gather') && 'package' in d.match ? [d.match.package] : [],
    ),
  );
  const heavy = [...weights]
    .filter(([name, bytes]) => bytes >= LEAST_APART && !apart.has(name))
    .sort((a, b) => b[1] - a[1])
    .slice(0, MOST_APART)
    .map(([name]) => name);
  if (heavy.length === 0) return [];
  const keep = (names: string[]): Decision[] => names.map((name) => ({ kind: 'apart', match: { package: name } }));
  return [
    {
      id: 'deploys',
      kind: 'mixed by deploys',
      what: `${heavy.length} ${heavy.length === 1 ? 'package shares' : 'packages share'} files with code that changes at every deploy`,
      why: `${heavy.join(', ')}: who returns after a deploy fetches them again, though they are as they were.`,
      evidence: heavy.flatMap((name) =>
        analysis.bringing(snapshot.modules.flatMap((m, at) => (m.package === name ? [at] : []))).slice(0, 1),
      ),
      routes: snapshot.routes.map((r) => r.pattern),
      remedies: [
        { words: `keep ${heavy[0]} apart`, decisions: keep(heavy.slice(0, 1)) },
        ...(heavy.length > 1 ? [{ words: 'keep them apart', decisions: keep(heavy) }] : []),
      ],
      whose: 'returning after a deploy',
    },
  ];
}
