import type { Conditions, Link } from '../sim/conditions.ts';
import { amount, type Fields, millisOf, object, oneOf } from '../text/fields.ts';

/** The screen of recorded loads, in CSS pixels. */
export const CASE_VIEWPORT = { width: 1280, height: 800 };

/**
 * Servers that were recorded: Node writes large records in the order of readiness unless the case says otherwise; the other one writes small
 * ones by urgency, and over HTTP/3 all answers in equal shares (facts 7, 57, 59).
 */
const SERVERS: Record<
  'node' | 'go',
  (order: 'fifo' | 'urgency') => Pick<Link, 'serverScheduling' | 'recordBytes' | 'overHttp3'>
> = {
  node: (serverScheduling) => ({ serverScheduling }),
  go: () => ({ serverScheduling: 'urgency', recordBytes: 1400, overHttp3: { serverScheduling: 'shared' } }),
};

/** Visits of one profile, and what the ones before have left. */
const VISITS = { first: 'empty', repeat: 'returning', third: 'frequent' } as const;

/** The conditions of a load case; throws InputError naming the field that says none. */
export function caseConditions(item: Fields): Conditions {
  const c = object(item.conditions, 'conditions');
  const order = oneOf(c.serverScheduling ?? 'fifo', ['fifo', 'urgency'] as const, 'conditions.serverScheduling');
  const server = oneOf(c.server ?? 'node', ['node', 'go'] as const, 'conditions.server');
  const dns = c.dns === undefined ? null : object(c.dns, 'conditions.dns');
  const throttle = amount(c.cpuThrottle ?? 1, 'conditions.cpuThrottle');
  const slowdown = amount(c.cpuSlowdown ?? 1, 'conditions.cpuSlowdown');
  const visit = oneOf(item.visit ?? 'first', ['first', 'repeat', 'third'] as const, 'visit');
  return {
    link: {
      id: 'case',
      name: 'as in the case',
      protocol: oneOf(c.protocol, ['h1', 'h2', 'h3', 'h2-h3'] as const, 'conditions.protocol'),
      tls: c.tls === false ? 'none' : '1.3',
      rttMs: millisOf(c.rttMs, 'conditions.rttMs'),
      downKbps: amount(c.downKbps, 'conditions.downKbps'),
      upKbps: amount(c.upKbps, 'conditions.upKbps'),
      dnsMs: 0,
      ...(dns === null ? {} : { resolverMs: millisOf(dns.resolverMs, 'conditions.dns.resolverMs') }),
      ...SERVERS[server](order),
      queuePackets: c.queuePackets === undefined ? usualQueue(c) : amount(c.queuePackets, 'conditions.queuePackets'),
      ...(c.lossDownPct === undefined
        ? {}
        : {
            lossPercent: amount(c.lossDownPct, 'conditions.lossDownPct'),
            lossSeed: amount(c.lossSeed ?? 1, 'conditions.lossSeed'),
          }),
    },
    device: {
      id: 'reference',
      name: 'Reference machine',
      cpuFactor: slowdown * throttle,
      browserFactor: throttle,
      // Only the page's own thread is slowed.
      backgroundFactor: 1,
      viewport: CASE_VIEWPORT,
      touch: false,
      dataSaver: false,
    },
    cache: VISITS[visit],
  };
}

/** Packets that the recorded link lets wait where nothing is said: 64, or twice what it holds. */
function usualQueue(c: Fields): number {
  return Math.max(64, Math.ceil((2 * Number(c.rttMs) * Number(c.downKbps)) / 8 / 1500));
}
