import { moveInteraction, partInteraction } from '../../load/types.ts';
import type { Decision, Fallback } from '../../plan/types.ts';
import { shortName } from '../../text/short-name.ts';
import { actKey } from '../../visitors/reckon.ts';
import { VisitCompiler } from '../../visits/program.ts';
import type { CandidateFinding, Score } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

/** Deferred parts and pages of which the plan doesn't say what shows if their code can't be loaded; all in one. */
export function failsSilently(analysis: AnalysisContext): CandidateFinding[] {
  const { snapshot, starts } = analysis;
  const visits = new VisitCompiler(starts);
  const asked = new Map<string, string[]>();
  for (const { route } of starts.starts) {
    const { program, interactions } = visits.document(route.pattern);
    const moments = [
      ...route.parts.map((p) => ({ module: p.module, interaction: partInteraction(route.pattern, p.id) })),
      ...snapshot.routes.map((r) => ({ module: r.page, interaction: moveInteraction(r.pattern) })),
    ];
    for (const { module, interaction } of moments) {
      const at = interactions.get(interaction);
      const found = at === undefined ? null : program.interactions![at];
      if (!found?.act.some((a) => a.do.kind === 'import')) continue;
      if (program.parts[found.shows[0]]?.tellsFailure) continue;
      const routes = asked.get(module) ?? [];
      if (!routes.includes(route.pattern)) asked.set(module, [...routes, route.pattern]);
    }
  }
  if (asked.size === 0) return [];
  const decisions = [...asked.keys()].map(
    (module): Decision => ({
      kind: 'split',
      splitPoint: module,
      ...(starts.plan.settings.get(module) ?? {}),
      onError: 'a way to try again',
    }),
  );
  const names = [...asked.keys()].map(shortName);
  return [
    {
      id: 'fails silently',
      kind: 'fails silently',
      what: `${names.length} deferred ${names.length === 1 ? 'piece says' : 'pieces say'} nothing if their code can’t be loaded`,
      why: `A broken connection, or a deploy while the page is open, leaves nothing to see of ${names.slice(0, 6).join(', ')}${names.length > 6 ? ' and others' : ''}: neither the code nor the plan names an error state.`,
      evidence: [...asked.keys()].flatMap((path) =>
        analysis
          .deferredTo(analysis.module(path))
          .map((d) => d.evidence)
          .slice(0, 1),
      ),
      routes: [...new Set([...asked.values()].flat())],
      remedies: [{ words: 'show a way to try again', decisions }],
      seen: true,
    },
  ];
}

/** Parts that come late where no room is kept, and stand-ins that only flash, as the present score shows. */
export function unsteadyScreen(analysis: AnalysisContext, score: Score): CandidateFinding[] {
  const { snapshot, starts } = analysis;
  const { settings } = starts.plan;
  const flashing = new Set(score.waits.filter((w) => w.flashes).map((w) => w.key));
  const moving = new Set(score.routes.filter((r) => r.moves > 0).map((r) => r.pattern));
  const found = new Map<string, CandidateFinding>();
  for (const { route } of starts.starts) {
    for (const { id, module, name, place } of route.parts) {
      const own = settings.get(module);
      const moves = own?.fallback?.show === 'nothing' && place === 'first screen' && moving.has(route.pattern);
      if (found.has(module) || !(moves || flashing.has(actKey(route.pattern, id)))) continue;
      const remedies: [string, Fallback][] = [
        ['keep its room until it shows', { show: 'reserved space', holdMs: 0 }],
        ['keep its placeholder for at least 400 ms', { show: 'stand-in', holdMs: 400 }],
      ];
      found.set(module, {
        id: `unsteady ${module}`,
        kind: 'unsteady screen',
        what: moves ? `${name} moves what stands around it when it comes` : `the placeholder of ${name} only flashes`,
        why: 'What appears for a moment, or pushes other things aside, disturbs more than a short wait.',
        evidence: analysis.deferredTo(analysis.module(module)).map((d) => d.evidence),
        routes: snapshot.routes.filter((r) => r.parts.some((p) => p.module === module)).map((r) => r.pattern),
        remedies: remedies.map(([words, fallback]) => ({
          words,
          decisions: [{ kind: 'split', splitPoint: module, ...own, fallback }],
        })),
        seen: true,
      });
    }
  }
  return [...found.values()];
}
