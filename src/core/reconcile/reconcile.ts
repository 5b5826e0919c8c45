import { planned } from '../chunks/planned.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { InputError } from '../errors.ts';
import { Addresses } from '../handoff/addresses.ts';
import { needsScript, plannedLinks } from '../handoff/planned-links.ts';
import { type Start, startsOf } from '../inventory/starts.ts';
import { decisionWords, shipsBy } from '../plan/decisions.ts';
import { chosenImports, effectivePlan } from '../plan/effective.ts';
import { hintWords } from '../plan/hints.ts';
import type { Decision, Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { BuiltFiles } from './built-files.ts';
import type { DecisionDelivered, HintDelivered, Reconciliation, RouteDelivered } from './types.ts';

const MOST_EXTRA = 8;

/**
 * Lays what a plan promised beside what the next build delivered: the start of each route, each decision as far as files
 * can tell, and each hint that should stand in a document. `built`: the production output, read with its maps.
 */
export function reconcile(app: Snapshot, plan: Plan, built: Snapshot): Reconciliation {
  checkBuilt(built);
  const files = new BuiltFiles(built);
  const ships = shipped(app, plan).snapshot;
  const { graph, starts } = startsOf(ships, plan);
  const routes = starts.map((start) => routeDelivered(ships, graph, start, built, files));
  const { stale } = effectivePlan(ships, plan);
  const decisions = plan.decisions.flatMap((decision, at): DecisionDelivered[] => {
    if (decision.kind === 'hint' || shipsBy(decision) === 'nothing to ship') return [];
    const told = stale.some((s) => s.decision === at)
      ? { state: 'untold' as const, why: 'it names nothing in the snapshot' }
      : toldOf(app, built, files, decision);
    return [{ decision: at, words: decisionWords(decision), ...told }];
  });
  const hints = hintsOf(ships, plan, built, files);
  const unknown = [...new Set(starts.flatMap((s) => [...s.modules]))]
    .map((m) => ships.modules[m])
    .filter((m) => m.bytes.minified > 0 && files.pathOf(m.path) === null)
    .map((m) => m.path);
  const ok =
    [...decisions, ...hints].every((d) => d.state !== 'not delivered') && routes.every((r) => r.extra.length === 0);
  return { routes, decisions, hints, unknown, ok };
}

/** Refuses what isn't a build, or one whose files can't be told apart. */
function checkBuilt(built: Snapshot): void {
  if (!built.output)
    throw new InputError(
      'Not a build',
      'Read the folder that the production build wrote, not the sources.',
      built.name,
    );
  if (!built.output.files.some((f) => f.inside === 'sources'))
    throw new InputError(
      'No sources in the maps',
      'The build’s source maps don’t hold the sources, so what is in its files can’t be told. Build with them.',
      built.name,
    );
}

/** The start of a route as it was promised, and as the build's files make it; gzip bytes. */
function routeDelivered(
  ships: Snapshot,
  graph: ChunkGraph,
  start: Start,
  built: Snapshot,
  files: BuiltFiles,
): RouteDelivered {
  const chunks = [...start.chunks].map((c) => graph.chunks[c]);
  const bytes = chunks.reduce((sum, c) => sum + c.bytes.gzip, 0);
  const targets = start.landing.roots.flatMap((l) => graph.roots[l.root].target.map((m) => ships.modules[m].path));
  const promised = { bytes: Math.round(bytes), files: chunks.length };
  const { pattern, page } = start.route;
  if (files.holding(page).length === 0) return { pattern, promised, delivered: null, extra: [], more: 0 };
  const tags = built.output!.starts.flatMap((s) => s.tags.map((t) => t.file));
  const got = files.closure([...tags, ...targets.flatMap((t) => files.holding(t).slice(0, 1))]);
  const wanted = new Set([...start.modules].map((m) => files.pathOf(ships.modules[m].path)));
  const extra = [...got].flatMap((file) =>
    files.output.files[file].modules
      .filter(({ module }) => !wanted.has(built.modules[module].path))
      .map(({ module, bytes }) => ({ path: built.modules[module].path, bytes, file: files.output.files[file].path })),
  );
  extra.sort((a, b) => b.bytes - a.bytes);
  const delivered = {
    bytes: [...got].reduce((sum, f) => sum + files.output.files[f].bytes.gzip, 0),
    files: [...got].map((f) => files.output.files[f].path),
  };
  return {
    pattern,
    promised,
    delivered,
    extra: extra.slice(0, MOST_EXTRA),
    more: Math.max(0, extra.length - MOST_EXTRA),
  };
}

type Told = Pick<DecisionDelivered, 'state' | 'why'>;

/** What the files tell of one decision. */
function toldOf(app: Snapshot, built: Snapshot, files: BuiltFiles, decision: Decision): Told {
  switch (decision.kind) {
    case 'detach':
    case 'join':
      return toldOfImports(app, built, files, decision);
    case 'move':
      return toldOfMove(app, built, files, decision);
    case 'script':
      return toldOfScript(app, built, decision);
    case 'drop link': {
      const there = built.links.some((l) => l.rel === decision.rel && l.address === decision.address);
      return there
        ? { state: 'not delivered', why: 'a document still has it' }
        : { state: 'delivered', why: 'no document has it' };
    }
    case 'no script': {
      const [file] = files.holding(decision.module);
      return file === undefined
        ? { state: 'delivered', why: 'no file holds it' }
        : { state: 'not delivered', why: `${files.output.files[file].path} holds it` };
    }
    case 'together': {
      const held = decision.modules.map((m) => files.holding(m)[0]);
      const one = new Set(held).size === 1 && held[0] !== undefined;
      return {
        state: one ? 'delivered' : 'not delivered',
        why: one ? 'one file holds them' : 'several files hold them',
      };
    }
    case 'trigger':
    case 'split':
    case 'hint':
    case 'loader':
    case 'put aside':
    case 'one version':
    case 'trim':
    case 'style in script':
    case 'gather':
    case 'apart':
    case 'floor':
    case 'ceiling':
    case 'copy':
    case 'grain':
    case 'chunk name':
      return { state: 'untold', why: 'the files don’t tell' };
  }
}

/** A third-party script is delivered when the documents place it as decided. */
function toldOfScript(app: Snapshot, built: Snapshot, decision: Extract<Decision, { kind: 'script' }>): Told {
  const script = app.scripts.find((s) => s.id === decision.script);
  const there = built.scripts.find((s) => s.address === script?.address || s.id === decision.script);
  if (!there) return { state: 'untold', why: 'the documents have no such script' };
  if (there.placement === decision.placement) return { state: 'delivered', why: `it is placed ${there.placement}` };
  return { state: 'not delivered', why: `it is placed ${there.placement}` };
}

/** A moved import is delivered when the build's own sources make it in the one module, and no longer in the other. */
function toldOfMove(
  app: Snapshot,
  built: Snapshot,
  files: BuiltFiles,
  decision: Extract<Decision, { kind: 'move' }>,
): Told {
  const chosen = chosenImports(app, decision);
  if (typeof chosen === 'string') return { state: 'untold', why: chosen };
  const { from, to } = app.imports[chosen[0]];
  const [old, sheet] = [from, to].map((m) => files.moduleAt(app.modules[m].path));
  const target = files.moduleAt(decision.to);
  const made = (by: number | undefined) => built.imports.find((b) => b.from === by && b.to === sheet);
  const still = made(old);
  if (still) return { state: 'not delivered', why: `still made in ${built.modules[still.from].path}:${still.line}` };
  return made(target)
    ? { state: 'delivered', why: `it is made in ${decision.to}` }
    : { state: 'untold', why: 'the build has no such import' };
}

/** An import is delivered when the build's own sources make it in the way that is decided. */
function toldOfImports(
  app: Snapshot,
  built: Snapshot,
  files: BuiltFiles,
  decision: Extract<Decision, { kind: 'detach' | 'join' }>,
): Told {
  const chosen = chosenImports(app, decision);
  if (typeof chosen === 'string') return { state: 'untold', why: chosen };
  const wanted = decision.kind === 'detach' ? 'dynamic' : 'static';
  const wrong: string[] = [];
  let found = 0;
  for (const i of chosen) {
    const [from, to] = [app.imports[i].from, app.imports[i].to].map((m) => files.moduleAt(app.modules[m].path));
    const made = built.imports.filter((b) => b.from === from && b.to === to);
    found += made.length;
    for (const b of made) if (b.kind !== wanted) wrong.push(`${built.modules[b.from].path}:${b.line}`);
  }
  if (wrong.length > 0)
    return {
      state: 'not delivered',
      why: `still ${wanted === 'dynamic' ? 'static' : 'deferred'}: ${wrong.slice(0, 4).join(', ')}`,
    };
  if (found > 0) return { state: 'delivered', why: wanted === 'dynamic' ? 'it is deferred' : 'it is static' };
  const gone = decision.kind === 'detach' ? 'the build has no such import any more' : 'the build has no such import';
  return { state: decision.kind === 'detach' ? 'delivered' : 'untold', why: gone };
}

/** Hints in the markup are looked for in the build's documents; others don't show in files. */
function hintsOf(snapshot: Snapshot, plan: Plan, built: Snapshot, files: BuiltFiles): HintDelivered[] {
  const app = planned(snapshot, plan);
  const addresses = new Addresses({ ...snapshot, base: built.base }, app.graph, files.map());
  const found = new Map<string, HintDelivered>();
  for (const { pattern, links, rules } of plannedLinks(app, addresses)) {
    for (const link of links) {
      const key = `${link.rel} ${link.href} ${link.hint.place}`;
      const known = found.get(key);
      if (known) {
        known.routes.push(pattern);
        continue;
      }
      const told: Told =
        link.hint.place !== 'markup' || needsScript(link)
          ? {
              state: 'untold',
              why: `it comes ${link.hint.place === 'markup' || link.hint.place === 'script' ? 'by script' : 'with the answer of the server'}`,
            }
          : toldOfLink(built, link);
      found.set(key, { words: hintWords(link.hint), routes: [pattern], rel: link.rel, address: link.href, ...told });
    }
    for (const rule of rules) {
      const words = hintWords(rule);
      const known = found.get(words);
      if (known) known.routes.push(pattern);
      else
        found.set(words, {
          words,
          routes: [pattern],
          rel: 'speculation rule',
          address: '',
          state: 'untold',
          why: 'rules aren’t looked for in documents',
        });
    }
  }
  return [...found.values()];
}

function toldOfLink(
  built: Snapshot,
  { rel, href, as, crossorigin }: ReturnType<typeof plannedLinks>[number]['links'][number],
): Told {
  if (href.startsWith('{{')) return { state: 'not delivered', why: 'no file of the build holds what it aims at' };
  const there = built.links.filter((l) => l.rel === rel && sameAddress(l.address, href));
  if (there.length === 0) return { state: 'not delivered', why: 'no document has it' };
  if (as !== null && !there.some((l) => l.as === as))
    return {
      state: 'not delivered',
      why: `it is there as ${there[0].as || 'nothing'}, not as ${as}: nothing will use it`,
    };
  if ((rel === 'preload' || rel === 'preconnect') && !there.some((l) => l.crossorigin === crossorigin))
    return {
      state: 'not delivered',
      why: `it is there ${crossorigin ? 'without' : 'with'} crossorigin: nothing will use it`,
    };
  return { state: 'delivered', why: `${there[0].evidence.path}:${there[0].evidence.line}` };
}

function sameAddress(a: string, b: string): boolean {
  return a.replace(/^\.?\//, '') === b.replace(/^\.?\//, '');
}
