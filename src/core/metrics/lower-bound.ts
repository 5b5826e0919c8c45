import type { LoadProgram } from '../load/types.ts';
import { type Conditions, EVALUATION_RATE } from '../sim/conditions.ts';
import type { Timeline } from '../sim/types.ts';

/**
 * What no plan can beat for this landing, in ms until interactive: the larger of (connect + round trip + server time
 * + document) and (first possible request + needed bytes at line rate from then on), plus the last evaluation that
 * can't be avoided. Caches are respected; early hints are counted as possible, so files may travel during server
 * time. Needed are the files that this timeline used at start.
 */
export function lowerBound(program: LoadProgram, timeline: Timeline, { link, device, cache }: Conditions): number {
  const perByte = 8 / link.downKbps;
  const handshakes = link.protocol === 'h3' ? 1 : link.tls === 'none' ? 1 : link.tls === '1.2' ? 3 : 2;
  const connected = link.dnsMs + handshakes * link.rttMs;
  const { document } = program;
  const byDocument = connected + link.rttMs + document.serverMs + document.bytes * perByte;
  let bytes = 0;
  let last = 0;
  for (const request of timeline.requests) {
    if (request.resource < 0 || (request.role !== 'needed' && request.role !== 'hinted')) continue;
    const item = program.resources[request.resource];
    if (cache === 'empty') bytes += item.bytes;
    if (item.type !== 'script' || item.purpose !== 'start') continue;
    const ms = (item.cpuMs + item.estimatedBytes * EVALUATION_RATE.likely) * device.cpuFactor;
    last = last === 0 ? ms : Math.min(last, ms);
  }
  const byTransfer = connected + link.rttMs + (bytes + document.bytes) * perByte;
  return Math.max(byDocument, byTransfer) + last;
}
