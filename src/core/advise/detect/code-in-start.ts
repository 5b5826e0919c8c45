import { explainHold } from '../../explain/hold.ts';
import { findLeaks, type Leak } from '../../inventory/leaks.ts';
import type { Decision } from '../../plan/types.ts';
import { drawingMs } from '../../sim/conditions.ts';
import type { Part } from '../../snapshot/route-types.ts';
import { shortName } from '../../text/short-name.ts';
import type { Trigger } from '../../vocabulary/triggers.ts';
import type { CandidateFinding, Remedy } from '../types.ts';
import type { AnalysisContext } from './analysis-context.ts';

/** Code of some routes in the start of others. */
export function routeLeaks({ snapshot, starts }: AnalysisContext): CandidateFinding[] {
  const pages = new Set(snapshot.routes.flatMap((r) => [...r.layouts, r.page]));
  return findLeaks(snapshot, starts.plan, starts.starts).map((leak): CandidateFinding => {
    const others = leak.neededBy.join(', ');
    const forgotten = leak.siblings > 0 ? ` Its ${leak.siblings} siblings are deferred; this one was forgotten.` : '';
    return {
      id: `leak ${leak.import}`,
      kind: 'route leak',
      what: `${leak.name} is in the start of ${leak.paidBy.length === 1 ? '1 route that doesn’t use it' : `${leak.paidBy.length} routes that don’t use it`}`,
      why: `Only ${others} ${leak.neededBy.length === 1 ? 'needs' : 'need'} it.${forgotten}`,
      evidence: [{ from: leak.from, to: leak.to, line: leak.line }],
      routes: leak.paidBy,
      remedies: waysOut(leak, pages.has(leak.to)),
    };
  });
}

/** A page is fetched when somebody goes there; other code when it is wanted first, or in the quiet before. */
function waysOut(leak: Leak, isPage: boolean): Remedy[] {
  const detach: Decision = { kind: 'detach', import: leak.import };
  if (isPage) return [{ words: `detach ${leak.name}`, decisions: [detach] }];
  return [{ on: 'idle' as const }, { on: 'action' as const }].map((fetch) => ({
    words: `detach ${leak.name}, fetch it ${fetch.on === 'idle' ? 'when idle' : 'when it is first used'}`,
    decisions: [detach, { kind: 'trigger', splitPoint: leak.to, fetch }],
  }));
}

/** Triggers that make sense for a part of each place, beside what its place says by itself. */
const TRIGGERS: Record<Part['place'], Trigger[]> = {
  action: [{ on: 'action' }, { on: 'approach' }, { on: 'idle' }],
  below: [{ on: 'visible' }, { on: 'idle' }],
  conditional: [],
  'first screen': [],
};

/** Parts that nobody sees at first, in the start all the same. One candidate per module, whatever routes it stands on. */
export function partsInStart(analysis: AnalysisContext): CandidateFinding[] {
  const { starts } = analysis.starts;
  const found = new Map<string, CandidateFinding>();
  for (const start of starts) {
    for (const part of start.route.parts) {
      const module = analysis.module(part.module);
      if (part.place === 'first screen' || module < 0 || !start.modules.has(module)) continue;
      const evidence = analysis.importersIn(start, module);
      if (evidence.length === 0) continue;
      const old = found.get(part.module);
      if (old) {
        old.routes.push(start.route.pattern);
        continue;
      }
      found.set(part.module, {
        id: `part ${part.module}`,
        kind: 'part in the start',
        what: `${part.name} comes with the start, though nobody sees it then`,
        why: `${placeWords(part)}; ${Math.round(part.share * 100)} % of visits need it.${drawingWords(analysis, start.route.pattern, part)}`,
        evidence,
        routes: [start.route.pattern],
        remedies: waysToDefer(part),
      });
    }
  }
  return [...found.values()];
}

/** From so many ms on, what drawing a part takes is worth a word. */
const LEAST_DRAWING = 2;

/** What drawing it takes of the page's thread, where it is drawn with the landing. */
function drawingWords(analysis: AnalysisContext, pattern: string, { id }: Part): string {
  const drawn = analysis.prediction(pattern).program.parts.find((p) => p.id === id && p.drawnBy === 'script');
  const ms = drawn ? drawingMs(analysis.conditions.device, drawn.renderMs) : 0;
  if (!drawn || ms < LEAST_DRAWING) return '';
  return ` Drawing it takes another ${Math.round(ms)} ms of the page’s thread${drawn.measured ? ', by a measurement' : ', estimated from its code'}.`;
}

function waysToDefer(part: Part): Remedy[] {
  const detach: Decision = { kind: 'detach', module: part.module };
  const name = shortName(part.module);
  const triggers = TRIGGERS[part.place];
  if (triggers.length === 0) return [{ words: `detach ${name}`, decisions: [detach] }];
  return triggers.map((fetch) => ({
    words: `detach ${name}, fetch it ${fetch.on === 'action' ? 'on the act' : `when ${fetch.on}`}`,
    decisions: [detach, { kind: 'trigger', splitPoint: part.module, fetch }],
  }));
}

function placeWords(part: Part): string {
  if (part.place === 'below') return 'It stands below the first screen';
  if (part.place === 'action') return part.action ? `It stands behind “${part.action}”` : 'It stands behind an act';
  return 'It is shown under a condition';
}

/** What a split point needs that stays in the start, because something else imports it as well. */
const LEAST_STAYS = 4000;

/** Split points that save little, since somebody else keeps what they need; with the cheapest way to free it. */
export function keptBySharing({ snapshot, plan, starts }: AnalysisContext): CandidateFinding[] {
  const found = new Map<string, CandidateFinding>();
  for (const { route, landing } of starts.starts) {
    for (const { root } of landing.later) {
      const target = snapshot.modules[starts.graph.roots[root].target[0]]?.path;
      const hold = target === undefined ? null : explainHold(snapshot, plan, [], route, target);
      if (!hold?.cut || hold.stays.minified < LEAST_STAYS || hold.cut.leaves.minified < LEAST_STAYS) continue;
      const { cut, holds } = hold;
      const id = `kept ${cut.imports.join(' ')}`;
      const old = found.get(id);
      if (old) {
        if (!old.routes.includes(route.pattern)) old.routes.push(route.pattern);
        continue;
      }
      found.set(id, {
        id,
        kind: 'kept by sharing',
        what: `${cut.frees} stays in the start though ${shortName(target)} is deferred`,
        why: `${holds[0].by[0].path} imports it as well.`,
        evidence: holds.flatMap((h) => h.by.map((b) => ({ from: b.path, to: h.module, line: b.line }))).slice(0, 4),
        routes: [route.pattern],
        remedies: [{ words: `detach ${cut.imports.length} more to free ${cut.frees}`, decisions: cut.decisions }],
      });
    }
  }
  return [...found.values()];
}
