import type { ScreenPart } from '../../load/types.ts';
import type { Decision } from '../../plan/types.ts';
import type { RequestRecord } from '../../sim/types.ts';
import type { ScriptPlacement } from '../../snapshot/document-types.ts';
import type { Route } from '../../snapshot/route-types.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import { whyNotHinted } from '../../text/address.ts';
import type { Hint } from '../../vocabulary/hints.ts';
import type { CandidateFinding, Evidence } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

/** Images and data of the first screen that only running code asks for, and fonts that are found when its text is laid out. */
export function foundLate(analysis: AnalysisContext): CandidateFinding[] {
  return analysis.starts.starts.flatMap(({ route }): CandidateFinding[] => {
    const { timeline, program } = analysis.prediction(route.pattern);
    const first = new Set(program.parts.filter((p) => p.place === 'first screen').flatMap(firstScreenFiles));
    return timeline.requests.flatMap((r): CandidateFinding[] => {
      if (r.resource < 0 || !first.has(r.resource) || r.hop < 2 || r.hint || whyNotHinted(r.address)) return [];
      const hint: Hint = {
        kind: 'preload',
        place: 'markup',
        target: { kind: 'asset', address: r.address },
        routes: [route.pattern],
      };
      return [
        {
          id: `late ${route.pattern} ${r.address}`,
          kind: 'found late',
          what: `${r.name} of ${route.pattern} is found late`,
          why:
            r.type === 'font'
              ? 'The text of the first screen is written in it, but a browser asks for a font only once the styles are there and the text is laid out.'
              : `It belongs to the first screen, but ${r.cause.what.replace(' ran', '')} has to run before anybody asks for it.`,
          evidence: lineOf(route, r),
          routes: [route.pattern],
          remedies: (['markup', 'header', 'early'] as const).map((place) => ({
            words: `preload it (${place})`,
            decisions: [{ kind: 'hint', hint: { ...hint, place } } satisfies Decision],
          })),
        },
      ];
    });
  });
}

/** The line of code, or of a style sheet, that names a file or call, where it is known. */
function lineOf({ data, content, fonts = [] }: Route, { address, name }: RequestRecord): Evidence[] {
  const found =
    data.find((d) => d.address === address || d.id === name) ??
    [...fonts, ...content].find((f) => f.address === address);
  return found?.evidence ? [{ from: found.evidence.path, to: address, line: found.evidence.line }] : [];
}

/** What a part of the first screen shows besides its script: images, data and fonts. */
export function firstScreenFiles({ fill, fonts = [] }: ScreenPart): number[] {
  return [...fill, ...fonts.map((f) => f.resource)];
}

/** Second origins on whose connection the start waits. */
export function otherOrigins(analysis: AnalysisContext): CandidateFinding[] {
  const found = new Map<string, string[]>();
  for (const { route } of analysis.starts.starts) {
    const { timeline, chain } = analysis.prediction(route.pattern);
    const waits = chain.some((link) => link.kind === 'connecting');
    for (const { origin, hop, address } of timeline.requests) {
      if (origin === '' || hop < 1 || !waits || isInHead(analysis, address)) continue;
      const routes = found.get(origin) ?? [];
      if (!routes.includes(route.pattern)) found.set(origin, [...routes, route.pattern]);
    }
  }
  return [...found].map(([origin, routes]) => ({
    id: `origin ${origin}`,
    kind: 'other origin',
    what: `the start connects to ${origin} when it needs it`,
    why: 'Connecting takes two round trips, which could pass while the document still comes.',
    evidence: askingOf(analysis.snapshot, origin),
    routes,
    remedies: [
      {
        words: 'connect ahead in the markup',
        decisions: [
          { kind: 'hint', hint: { kind: 'preconnect', place: 'markup', target: { kind: 'origin', origin }, routes } },
        ],
      },
    ],
  }));
}

/** Placements of scripts in a head: a browser meets the tag as early as a link that would connect ahead for it. */
const IN_HEAD: readonly ScriptPlacement[] = ['blocking', 'async', 'defer'];

/** Whether an address is that of a script in the head, so that connecting ahead for it in the markup says nothing new. */
export function isInHead({ snapshot, starts }: AnalysisContext, address: string): boolean {
  return snapshot.scripts.some(
    (s) => s.address === address && IN_HEAD.includes(starts.plan.placements.get(s.id) ?? s.placement),
  );
}

/** Where documents and code name what comes from an origin. */
function askingOf({ scripts, links, routes }: Snapshot, origin: string): Evidence[] {
  const named = [...scripts, ...links, ...routes.flatMap((r) => [...r.data, ...(r.fonts ?? [])])];
  return named.flatMap(({ address, evidence }) =>
    evidence && address.startsWith(origin) ? [{ from: evidence.path, to: address, line: evidence.line }] : [],
  );
}

/** Data of a part that begins only once the part's own code has run. */
export function dataAfterCode({ snapshot, starts }: AnalysisContext): CandidateFinding[] {
  const found: CandidateFinding[] = [];
  for (const { route, landing } of starts.starts) {
    for (const part of route.parts) {
      const { settings } = starts.plan;
      if (part.place === 'first screen' || settings.get(part.module)?.data) continue;
      const root = landing.later.find(
        (l) => snapshot.modules[starts.graph.roots[l.root].target[0]]?.path === part.module,
      );
      const calls = route.data.filter((d) => part.needs.includes(d.id) && d.module === part.module);
      if (!root || calls.length === 0) continue;
      const settled = settings.get(part.module) ?? {};
      found.push({
        id: `data ${route.pattern} ${part.id}`,
        kind: 'data after code',
        what: `the data of ${part.name} is asked for only after its code has run`,
        why: `${calls.map((c) => c.id).join(', ')}: begun in the module that is fetched first.`,
        evidence: calls.flatMap(({ address, evidence }) =>
          evidence ? [{ from: evidence.path, to: address, line: evidence.line }] : [],
        ),
        routes: [route.pattern],
        remedies: [
          {
            words: 'fetch the data with the code',
            decisions: [{ kind: 'split', splitPoint: part.module, ...settled, data: 'with the code' }],
          },
        ],
      });
    }
  }
  return found;
}
