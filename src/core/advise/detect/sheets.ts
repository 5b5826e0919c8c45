import type { Decision } from '../../plan/types.ts';
import { importKey } from '../../snapshot/graph-index.ts';
import { shortName } from '../../text/short-name.ts';
import type { CandidateFinding } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

/** Smaller sheets aren't worth a line, in minified bytes. */
const LEAST = 500;

/** Style sheets in the start of routes none of whose code mentions their names. */
export function sheetsOfOthers(analysis: AnalysisContext): CandidateFinding[] {
  const { snapshot, starts, index } = analysis;
  if (snapshot.sheetUses.length === 0) return [];
  const reached = starts.starts.map((start) => {
    const later = start.landing.later.flatMap(({ root }) => [...starts.graph.roots[root].need]);
    return { start, all: new Set([...start.modules, ...later]) };
  });
  return snapshot.sheetUses.flatMap(({ module, by }): CandidateFinding[] => {
    const sheet = analysis.module(module);
    if (sheet < 0 || snapshot.modules[sheet].bytes.minified < LEAST) return [];
    const users = by.map((path) => analysis.module(path)).filter((m) => m >= 0);
    const having = starts.starts.filter((s) => s.modules.has(sheet));
    const needing = reached.filter(({ all }) => users.some((m) => all.has(m))).map((r) => r.start);
    const paying = having.filter((s) => !needing.includes(s));
    // One module has to be the one that brings it: the only user, or the page of the only route.
    const [to] = users.length === 1 ? users : needing.length === 1 ? [analysis.module(needing[0].route.page)] : [];
    if (paying.length === 0 || needing.length === 0 || to === undefined) return [];
    const edges = [];
    for (let e = index.inStart[sheet]; e < index.inStart[sheet + 1]; e++) {
      const edge = snapshot.imports[index.incoming[e]];
      if (edge.from !== to && having.some((s) => s.modules.has(edge.from))) edges.push(edge);
    }
    if (edges.length === 0) return [];
    const target = snapshot.modules[to].path;
    return [
      {
        id: `sheet ${module}`,
        kind: 'styles of others',
        what: `the styles of ${shortName(target)} are in the start of ${paying.length} ${paying.length === 1 ? 'route' : 'routes'} that don’t use them`,
        why: `Only ${needing.map((s) => s.route.pattern).join(', ')} mentions names of ${module}.`,
        evidence: edges.map((e) => ({ from: snapshot.modules[e.from].path, to: module, line: e.line })),
        routes: paying.map((s) => s.route.pattern),
        remedies: [
          {
            words: `import it in ${shortName(target)} instead`,
            decisions: edges.map((e): Decision => ({ kind: 'move', import: importKey(snapshot, e), to: target })),
          },
        ],
      },
    ];
  });
}
