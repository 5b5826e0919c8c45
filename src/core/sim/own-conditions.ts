import { DEVICES, type Device, FORMER_DEVICES, FORMER_LINKS, LINKS, type Link } from './conditions.ts';

const OWN = 'own';
const BETWEEN = '~';

/** Values that a person gives a link, with what is sensible. */
export const LINK_LIMITS = {
  rttMs: [0, 5000],
  downKbps: [10, 10_000_000],
  upKbps: [10, 10_000_000],
  dnsMs: [0, 5000],
  lossPercent: [0, 20],
} as const;

export const DEVICE_LIMITS = { cpuFactor: [0.1, 50], width: [200, 8000], height: [200, 8000] } as const;

export const PROTOCOLS = ['h1', 'h2', 'h3', 'h2-h3'] as const;
export const TLS_VERSIONS = ['none', '1.2', '1.3'] as const;
export const ORDERS = ['fifo', 'urgency', 'shared'] as const;

/** The named link of an id or name, of before as well; undefined where there is none. */
export function namedLink(called: string): Link | undefined {
  return [...LINKS, ...FORMER_LINKS].find((l) => l.id === called || l.name === called);
}

/** The named device, in the same way. */
export function namedDevice(called: string): Device | undefined {
  return [...DEVICES, ...FORMER_DEVICES].find((d) => d.id === called || d.name === called);
}

/** The link of an id: a named one (of before as well), or one of own values (which its id spells out); the first named one otherwise. */
export function linkOf(id: string): Link {
  const named = namedLink(id);
  if (named) return named;
  const [own, rtt, down, up, dns, protocol, tls, order, loss = '0'] = id.split(BETWEEN);
  const numbers = within(
    {
      ...{ rttMs: Number(rtt), downKbps: Number(down), upKbps: Number(up), dnsMs: Number(dns) },
      lossPercent: Number(loss),
    },
    LINK_LIMITS,
  );
  if (own !== OWN || !numbers) return LINKS[0];
  const { lossPercent, ...values } = numbers;
  const loses = lossPercent > 0;
  return {
    id,
    name: `${values.rttMs} ms, ${values.downKbps / 1000} Mbit/s${loses ? `, ${lossPercent} % lost` : ''}`,
    ...values,
    ...(loses ? { lossPercent } : {}),
    protocol: oneOf(PROTOCOLS, protocol, 'h2'),
    tls: oneOf(TLS_VERSIONS, tls, '1.3'),
    serverScheduling: oneOf(ORDERS, order, 'fifo'),
  };
}

/** The id that spells out a link's values. */
export function ownLinkId(link: Omit<Link, 'id' | 'name'>): string {
  const { rttMs, downKbps, upKbps, dnsMs, protocol, tls, serverScheduling, lossPercent = 0 } = link;
  const values = [OWN, rttMs, downKbps, upKbps, dnsMs, protocol, tls, serverScheduling];
  return [...values, ...(lossPercent > 0 ? [lossPercent] : [])].join(BETWEEN);
}

/** The device of an id, in the same way. */
export function deviceOf(id: string): Device {
  const named = namedDevice(id);
  if (named) return named;
  const [own, factor, width, height, touch, saver, rate] = id.split(BETWEEN);
  const numbers = within({ cpuFactor: Number(factor), width: Number(width), height: Number(height) }, DEVICE_LIMITS);
  if (own !== OWN || !numbers) return DEVICES[0];
  const evaluationRate = Number(rate);
  return {
    id,
    name: `${numbers.cpuFactor}× slower`,
    cpuFactor: numbers.cpuFactor,
    browserFactor: numbers.cpuFactor,
    viewport: { width: numbers.width, height: numbers.height },
    touch: touch === 'touch',
    dataSaver: saver === 'saver',
    ...(evaluationRate > 0 && evaluationRate < 0.01 ? { evaluationRate } : {}),
  };
}

/** The id that spells out a device's values. */
export function ownDeviceId(device: Omit<Device, 'id' | 'name'>): string {
  const { cpuFactor, viewport, touch, dataSaver, evaluationRate } = device;
  return [
    OWN,
    cpuFactor,
    viewport.width,
    viewport.height,
    touch ? 'touch' : 'pointer',
    dataSaver ? 'saver' : 'full',
    ...(evaluationRate === undefined ? [] : [evaluationRate]),
  ].join(BETWEEN);
}

function within<K extends string>(
  values: Record<K, number>,
  limits: Record<K, readonly [number, number]>,
): Record<K, number> | null {
  for (const key of Object.keys(limits) as K[]) {
    const [least, most] = limits[key];
    if (!(values[key] >= least && values[key] <= most)) return null;
  }
  return values;
}

function oneOf<T extends string>(choices: readonly T[], value: string | undefined, otherwise: T): T {
  return choices.find((c) => c === value) ?? otherwise;
}
