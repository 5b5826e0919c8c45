import type { ScriptPlacement } from '../../snapshot/document-types.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import { shortName } from '../../text/short-name.ts';
import type { CandidateFinding, Evidence } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

const PLACEMENTS = ['async', 'defer', 'after load'] as const satisfies readonly ScriptPlacement[];

/** A script up to this size can travel in every document, in compressed bytes. */
const SMALL_SCRIPT = 4000;

/** Classic scripts that stand in front of the first screen. */
export function scriptsInTheWay({ snapshot, starts }: AnalysisContext): CandidateFinding[] {
  return snapshot.scripts.flatMap((script): CandidateFinding[] => {
    const placed = starts.plan.placements.get(script.id) ?? script.placement;
    if (placed !== 'blocking' && placed !== 'defer' && placed !== 'async') return [];
    const all: ScriptPlacement[] =
      script.bytes !== null && script.bytes <= SMALL_SCRIPT ? [...PLACEMENTS, 'inlined'] : [...PLACEMENTS];
    const offered = all.filter((p) => p !== placed);
    return [
      {
        id: `script ${script.id}`,
        kind: 'script in the way',
        what: placed === 'blocking' ? `${script.name} blocks the parser` : `${script.name} competes with the start`,
        why: 'Nothing of the first screen needs it.',
        evidence: script.evidence
          ? [{ from: script.evidence.path, to: script.address, line: script.evidence.line }]
          : [],
        routes: snapshot.routes.map((r) => r.pattern),
        remedies: offered.map((placement) => ({
          words: `place it ${placement}`,
          decisions: [{ kind: 'script', script: script.id, placement }],
        })),
      },
    ];
  });
}

const LEAST_UNUSED = 500;

/** Sheets in the start with rules that nothing can use. */
export function unusedStyles({ snapshot, plan, starts }: AnalysisContext): CandidateFinding[] {
  const bytes = new Map<string, number>();
  for (const rule of snapshot.unusedRules) bytes.set(rule.module, (bytes.get(rule.module) ?? 0) + rule.bytes);
  return [...bytes].flatMap(([module, unused]): CandidateFinding[] => {
    const at = snapshot.modules.findIndex((m) => m.path === module);
    const routes = starts.starts.filter((s) => s.modules.has(at)).map((s) => s.route.pattern);
    const trimmed = plan.decisions.some((d) => d.kind === 'trim' && d.module === module);
    if (unused < LEAST_UNUSED || routes.length === 0 || trimmed) return [];
    const share = Math.round((unused / Math.max(1, snapshot.modules[at].bytes.minified)) * 100);
    return [
      {
        id: `styles ${module}`,
        kind: 'unused styles',
        what: `${share} % of ${module} can’t be used by anything`,
        why: 'No source or template mentions the names in these rules. Names that are put together while the app runs belong on the keep list.',
        evidence: linesOf(snapshot, module),
        routes,
        remedies: [{ words: 'leave those rules out', decisions: [{ kind: 'trim', module }] }],
      },
    ];
  });
}

/** So many rules are named. */
const MOST_LINES = 4;

function linesOf({ unusedRules }: Snapshot, module: string): Evidence[] {
  const own = unusedRules.filter((r) => r.module === module).sort((a, b) => a.line - b.line);
  return own.slice(0, MOST_LINES).map(({ line, selector }) => ({ from: module, to: selector, line }));
}

/** Below this a file is hardly worth its request, in minified bytes. */
const SMALL = 2500;

/** Chunks so small that a request costs more than they save. */
export function smallFiles(analysis: AnalysisContext): CandidateFinding[] {
  const { snapshot, plan, starts } = analysis;
  if (plan.decisions.some((d) => d.kind === 'floor')) return [];
  const small = starts.graph.chunks.filter(
    (c) => c.kind === 'script' && c.bytes.minified < SMALL && c.roots.length > 1,
  );
  if (small.length === 0) return [];
  const floors = [2000, 4000, 8000];
  const named = small
    .slice(0, MOST_LINES)
    .map((c) => `${c.name} with ${shortName(snapshot.modules[c.modules[0]].path)}`);
  return [
    {
      id: 'small files',
      kind: 'small files',
      what: `${small.length} shared ${small.length === 1 ? 'file is' : 'files are'} smaller than ${SMALL / 1000} kB`,
      why: `${named.join(', ')}${small.length > named.length ? ' and others' : ''}: each is a request of its own, for code that would hardly be noticed in the files beside it.`,
      evidence: small.slice(0, MOST_LINES).flatMap((c) => analysis.bringing(c.modules).slice(0, 1)),
      routes: snapshot.routes.map((r) => r.pattern),
      remedies: floors.map((bytes) => ({
        words: `no file below ${bytes / 1000} kB`,
        decisions: [{ kind: 'floor', bytes }],
      })),
    },
  ];
}
