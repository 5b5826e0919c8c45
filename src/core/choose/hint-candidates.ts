import type { AnalysisContext } from '../advise/detect/analysis-context.ts';
import { firstScreenFiles, isInHead } from '../advise/detect/late.ts';
import { partInteraction } from '../load/types.ts';
import { subjectOf } from '../plan/decisions.ts';
import { hintWords } from '../plan/hints.ts';
import type { RequestRecord } from '../sim/types.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import { whyNotHinted } from '../text/address.ts';
import { shortName } from '../text/short-name.ts';
import { type Wish, wishesOf } from '../visitors/reckon.ts';
import { VisitCompiler } from '../visits/program.ts';
import type { Hint, HintKind, HintPlace, HintTarget } from '../vocabulary/hints.ts';
import { HINT_PLACES } from '../vocabulary/hints.ts';
import type { Trigger } from '../vocabulary/triggers.ts';
import type { Candidate } from './types.ts';

/** Ways of giving one hint. */
type Given = { kind: HintKind; place: HintPlace; on?: Trigger; priority?: 'high' };

/** Places that are tried for any hint; one by script needs a trigger besides. */
const TRIED: Record<HintPlace, boolean> = { markup: true, header: true, early: true, script: false };

const inEveryPlace = (kind: HintKind): Given[] =>
  HINT_PLACES.filter((place) => TRIED[place]).map((place) => ({ kind, place }));

const NOW = inEveryPlace('modulepreload');
const ASSET = inEveryPlace('preload');
const CONNECT = inEveryPlace('preconnect');
/** What the head itself asks for is met as early as a link beside it. */
const CONNECT_SOONER = CONNECT.filter((given) => given.place !== 'markup');
const LATER: Given[] = [
  { kind: 'prefetch', place: 'markup' },
  { kind: 'prefetch', place: 'script', on: { on: 'idle' } },
  { kind: 'modulepreload', place: 'script', on: { on: 'approach' } },
];
const DOCUMENT: Given[] = [
  { kind: 'prefetch document', place: 'markup', on: { on: 'at once' } },
  { kind: 'prefetch document', place: 'markup', on: { on: 'approach' } },
  { kind: 'prepare document', place: 'markup', on: { on: 'approach' } },
];

/**
 * All hints that could make sense in an app under a plan: for every route that people come to, what its start finds
 * late, what they may want next, and the origins that it connects to. Those that the plan has already are left out.
 */
export function hintCandidates(analysis: AnalysisContext, model: VisitorModel): Candidate[] {
  const { plan, starts } = analysis;
  const has = new Set(plan.decisions.map(subjectOf));
  const { wishes, stays } = wishesOf(model);
  const visits = new VisitCompiler(starts);
  const found: Candidate[] = [];
  for (const { route } of starts.starts) {
    const { pattern } = route;
    if ((stays.get(pattern) ?? 0) === 0) continue;
    // Who comes from another document meets this one's hints as well, and so does who wants something later in the visit.
    const comes = (w: Wish) => w.kind === 'move' && w.to === pattern && !visits.staysInside(w.route, pattern);
    const meeting = wishes.filter((w) => comes(w) || w.way?.includes(pattern));
    const routes = [...new Set([pattern, ...meeting.map((w) => w.route)])];
    const offer = (target: HintTarget, given: readonly Given[], why: string, together: string | null) => {
      for (const remedy of given) {
        const hint: Hint = { ...remedy, target, routes: [pattern] };
        const subject = subjectOf({ kind: 'hint', hint });
        if (has.has(subject)) continue;
        found.push({
          id: subject,
          about: 'hint',
          words: hintWords(hint),
          why,
          remedy: { words: hintWords(hint), decisions: [{ kind: 'hint', hint }] },
          routes,
          instead: `${pattern} ${JSON.stringify(target)}`,
          together,
        });
      }
    };
    for (const late of lateInStart(analysis, route)) offer(late.target, late.given, late.why, `start of ${pattern}`);
    for (const wish of wishes) {
      if (wish.route !== pattern || wish.perVisit === 0) continue;
      const share = Math.min(1, wish.perVisit / stays.get(pattern)!);
      const often = `${Math.round(share * 100)} % of those on ${pattern}`;
      if (wish.kind === 'move') {
        const target: HintTarget = { kind: 'route', pattern: wish.to };
        const given = visits.staysInside(pattern, wish.to) ? LATER : DOCUMENT;
        offer(target, given, `${often} go to ${wish.to} next`, null);
      } else if (needsCode(visits, pattern, wish.to)) {
        offer({ kind: 'split point', module: wish.module }, LATER, `${often} want ${wish.name}`, null);
      }
    }
  }
  return found;
}

/** Whether a part's moment asks for code that isn't there. */
function needsCode(visits: VisitCompiler, route: string, part: string): boolean {
  const { program, interactions } = visits.document(route);
  const interaction = program.interactions?.[interactions.get(partInteraction(route, part)) ?? -1];
  return interaction?.act.some((a) => a.do.kind === 'import') ?? false;
}

interface Late {
  target: HintTarget;
  given: Given[];
  why: string;
}

/** What the start of a route needs and finds late: code, images and data of the first screen, other origins. */
function lateInStart(analysis: AnalysisContext, route: Route): Late[] {
  const { snapshot, starts } = analysis;
  const { timeline, program, reading } = analysis.prediction(route.pattern);
  const { landing } = starts.starts.find((s) => s.route === route)!;
  const until = reading.milestones.interactive;
  const late: Late[] = [];
  const roots = landing.roots.filter((l) => l.root !== landing.entry && l.trigger.on === 'at once');
  const modules = roots.flatMap((l) => {
    const { target, group } = starts.graph.roots[l.root];
    const files = timeline.requests.filter((r) => group.includes(program.resources[r.resource]?.chunk ?? -1));
    const found = files.some((r) => r.hop >= 2 && !r.hint);
    return found ? [snapshot.modules[target[0]].path] : [];
  });
  const chain = new Set([...route.layouts, route.page]);
  if (modules.filter((m) => chain.has(m)).length > 1)
    late.push({
      target: { kind: 'route', pattern: route.pattern },
      given: NOW,
      why: `the start of ${route.pattern} asks for its layouts and page one after another`,
    });
  for (const module of modules)
    late.push({
      target: { kind: 'split point', module },
      given: NOW,
      why: `the start of ${route.pattern} needs ${shortName(module)}, and code has to run before it is asked for`,
    });
  const first = new Set(program.parts.filter((p) => p.place === 'first screen').flatMap(firstScreenFiles));
  for (const r of timeline.requests) {
    if (!first.has(r.resource) || r.hint || !(r.discovered < until) || whyNotHinted(r.address)) continue;
    const why = `${r.name} belongs to the first screen of ${route.pattern}`;
    const target: HintTarget = { kind: 'asset', address: r.address };
    const tagged = route.content.some((c) => c.address === r.address && c.foundIn === 'document');
    if (r.hop >= 2) late.push({ target, given: ASSET, why: `${why} and is found late` });
    else if (tagged)
      late.push({ target, given: [{ kind: 'fetch priority', place: 'markup', priority: 'high' }, ...ASSET], why });
  }
  const beyondHead = otherOrigins(
    timeline.requests.filter((r) => !isInHead(analysis, r.address)),
    until,
  );
  for (const origin of otherOrigins(timeline.requests, until))
    late.push({
      target: { kind: 'origin', origin },
      given: beyondHead.has(origin) ? CONNECT : CONNECT_SOONER,
      why: `the start of ${route.pattern} connects to ${origin}`,
    });
  return late;
}

function otherOrigins(requests: readonly RequestRecord[], until: number): Set<string> {
  return new Set(requests.filter((r) => r.origin !== '' && r.discovered < until).map((r) => r.origin));
}
