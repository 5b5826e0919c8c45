import type { Decision } from '../../plan/types.ts';
import { importKey } from '../../snapshot/graph-index.ts';
import { shortName } from '../../text/short-name.ts';
import type { Hint } from '../../vocabulary/hints.ts';
import type { CandidateFinding } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

/** Pieces of a route's own chain that are asked for one after another. */
export function staircases(analysis: AnalysisContext): CandidateFinding[] {
  const { snapshot, starts } = analysis;
  return starts.starts.flatMap(({ route, landing }): CandidateFinding[] => {
    const stairs = landing.roots.filter((l) => l.root !== landing.entry && isNeeded(l.trigger.on) && l.askedBy >= 0);
    const targets = stairs.map((l) => starts.graph.roots[l.root].target[0]);
    const chain = stairs.filter((l) => l.inChain);
    // A stair on which another one stands: its code asks for that one.
    const depth = analysis.prediction(route.pattern).reading.readout.hops;
    if (chain.length < 2 || depth < 3) return [];
    const asked = targets.flatMap((m) => analysis.deferredTo(m));
    const joins = asked.map(
      ({ key }): Decision => ({ kind: 'join', import: importKey(snapshot, snapshot.imports[key]) }),
    );
    const [first] = chain.map((l) => starts.graph.roots[l.root].target[0]);
    const below = joins.filter((_, i) => asked[i].evidence.to !== snapshot.modules[first].path);
    const preload: Hint = {
      kind: 'modulepreload',
      place: 'markup',
      target: { kind: 'route', pattern: route.pattern },
      routes: [route.pattern],
    };
    return [
      {
        id: `staircase ${route.pattern}`,
        kind: 'staircase',
        what: `${route.pattern} comes up ${depth} stairs, one after another`,
        why: `${targets.map((m) => shortName(snapshot.modules[m].path)).join(', ')} are always needed, and each is asked for only by the one before.`,
        evidence: asked.map((a) => a.evidence),
        routes: [route.pattern],
        remedies: [
          ...(below.length > 0
            ? [{ words: 'join all but the first, so that they travel together', decisions: below }]
            : []),
          { words: 'preload them all in the markup', decisions: [{ kind: 'hint', hint: preload }] },
        ],
      },
    ];
  });
}

/** Parts of the first screen that were split off: together per route, since each alone changes little. */
export function deferredFirstScreen(analysis: AnalysisContext): CandidateFinding[] {
  const { snapshot, starts } = analysis;
  return starts.starts.flatMap(({ route, landing }): CandidateFinding[] => {
    const parts = route.parts.filter((p) => p.place === 'first screen');
    const roots = landing.roots.filter(
      (l) =>
        !l.inChain &&
        l.askedBy >= 0 &&
        isNeeded(l.trigger.on) &&
        parts.some((p) => analysis.module(p.module) === starts.graph.roots[l.root].target[0]),
    );
    const targets = roots.map((l) => starts.graph.roots[l.root].target[0]);
    const asked = targets.flatMap((m) => analysis.deferredTo(m));
    if (asked.length === 0) return [];
    const joins = asked.map(
      ({ key }): Decision => ({ kind: 'join', import: importKey(snapshot, snapshot.imports[key]) }),
    );
    const names = targets.map((m) => shortName(snapshot.modules[m].path));
    const hints = targets.map((m): Decision => {
      const target = { kind: 'split point' as const, module: snapshot.modules[m].path };
      return { kind: 'hint', hint: { kind: 'modulepreload', place: 'markup', target, routes: [route.pattern] } };
    });
    return [
      {
        id: `first screen ${route.pattern} ${names.join(' ')}`,
        kind: 'deferred first screen',
        what: `${names.length} ${names.length === 1 ? 'piece' : 'pieces'} of the first screen of ${route.pattern} ${names.length === 1 ? 'is' : 'are'} deferred`,
        why: `${names.join(', ')}: always needed there, so a split only adds a wait.`,
        evidence: asked.map((a) => a.evidence),
        routes: [route.pattern],
        remedies: [
          { words: `join ${names.length === 1 ? names[0] : 'them'}`, decisions: joins },
          { words: 'preload in the markup', decisions: hints },
        ],
      },
    ];
  });
}

function isNeeded(on: string): boolean {
  return on === 'at once';
}
