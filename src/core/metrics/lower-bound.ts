import { measuredOf } from '../chunks/evaluation-cost.ts';
import type { LoadProgram } from '../load/types.ts';
import { CODE_RATE, type Conditions, EVALUATION_RATE, REFERENCE_COSTS } from '../sim/conditions.ts';
import type { Timeline } from '../sim/types.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { CACHES } from '../vocabulary/cache-states.ts';

/**
 * What no plan can beat for this landing, in ms until interactive: the larger of (connect + round trip + server time
 * + document) and (first possible request + needed bytes at line rate from then on), plus the last evaluation that
 * can't be avoided. Needed is only what no decision can take away: the entry's own modules, the route's layouts and
 * page, and the interactive parts of its first screen, without anything that they import. Caches are respected; early
 * hints count as possible, so files may travel during server time.
 */
export function lowerBound(snapshot: Snapshot, route: Route, conditions: Conditions): number {
  const entry = snapshot.entries.find((e) => e.realm === route.realm && e.kind === 'document');
  const always = route.parts.filter((p) => p.place === 'first screen' && p.interactive).map((p) => p.module);
  const paths = new Set([...(entry?.modules ?? []), ...route.layouts, route.page, ...always]);
  let bytes = 0;
  let last = Number.POSITIVE_INFINITY;
  for (const module of snapshot.modules) {
    if (!paths.has(module.path) || module.kind === 'style') continue;
    bytes += module.bytes.marginal;
    last = Math.min(last, measuredOf(module) ?? module.bytes.minified * rateOf(conditions));
  }
  return bound(route.document, bytes, Number.isFinite(last) ? last : 0, conditions);
}

/**
 * The same for the files that this plan makes of the landing: what no hint, order or trigger can beat as long as the
 * files stay as they are.
 */
export function filesBound(program: LoadProgram, timeline: Timeline, conditions: Conditions): number {
  let bytes = 0;
  let last = Number.POSITIVE_INFINITY;
  for (const request of timeline.requests) {
    if (request.resource < 0 || (request.role !== 'needed' && request.role !== 'hinted')) continue;
    const item = program.resources[request.resource];
    if (item.chunk === undefined || item.purpose !== 'start') continue;
    bytes += item.bytes;
    if (item.type === 'script') last = Math.min(last, item.cpuMs + item.estimatedBytes * rateOf(conditions));
  }
  return bound(program.document, bytes, Number.isFinite(last) ? last : 0, conditions);
}

function rateOf({ device, cache }: Conditions): number {
  const kept = CACHES[cache].code === 'compiled' ? CODE_RATE.run * (1 - CODE_RATE.keptShare) : 0;
  return Math.max(0, (device.evaluationRate ?? EVALUATION_RATE.likely) - kept);
}

function bound(
  document: { bytes: number; serverMs: number },
  bytes: number,
  lastMs: number,
  conditions: Conditions,
): number {
  const { link, device, cache } = conditions;
  const perByte = 8 / link.downKbps;
  const speaksH3 = link.protocol === 'h3' || (link.protocol === 'h2-h3' && cache !== 'empty');
  const handshakes = speaksH3 || link.tls === 'none' ? 1 : link.tls === '1.2' ? 3 : 2;
  const lookUp = link.resolverMs === undefined ? link.dnsMs : link.resolverMs + link.rttMs;
  const { headStart } = device.costs ?? REFERENCE_COSTS;
  const connected = Math.max(0, lookUp + handshakes * link.rttMs - headStart) + link.rttMs;
  const byDocument = document.serverMs + document.bytes * perByte;
  const byTransfer = (document.bytes + (['empty', 'deployed', 'rebuilt'].includes(cache) ? bytes : 0)) * perByte;
  return connected + Math.max(byDocument, byTransfer) + lastMs * device.cpuFactor;
}
