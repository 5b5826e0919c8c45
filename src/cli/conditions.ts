import type { Command } from 'commander';
import type { Circumstance } from '../core/choose/types.ts';
import { InputError } from '../core/errors.ts';
import { type Conditions, DEVICES, type Device, LINKS, type Link } from '../core/sim/conditions.ts';
import {
  DEVICE_LIMITS,
  deviceOf,
  LINK_LIMITS,
  linkOf,
  namedDevice,
  namedLink,
  ORDERS,
  ownDeviceId,
  ownLinkId,
  PROTOCOLS,
  TLS_VERSIONS,
} from '../core/sim/own-conditions.ts';
import { CACHE_STATES } from '../core/vocabulary/cache-states.ts';

export interface ConditionOptions {
  link: string;
  device: string;
  cache: string;
  rtt?: string;
  down?: string;
  up?: string;
  dns?: string;
  protocol?: string;
  tls?: string;
  order?: string;
  loss?: string;
  cpu?: string;
  viewport?: string;
  touch?: boolean;
  dataSaver?: boolean;
}

/** Adds the options by which conditions are named, and those that give them values of one's own. */
export function withConditionOptions(command: Command): Command {
  const range = ([least, most]: readonly [number, number]) => `${least} to ${most}`;
  return command
    .option('--link <id>', `one of ${LINKS.map((l) => l.id).join(', ')}`, LINKS[0].id)
    .option('--device <id>', `one of ${DEVICES.map((d) => d.id).join(', ')}`, DEVICES[0].id)
    .option('--cache <state>', `one of ${CACHE_STATES.join(', ')}`, 'empty')
    .option('--rtt <ms>', `round trip in place of the link's, ${range(LINK_LIMITS.rttMs)}`)
    .option('--down <kbps>', `rate down in place of the link's, ${range(LINK_LIMITS.downKbps)}`)
    .option('--up <kbps>', `rate up in place of the link's, ${range(LINK_LIMITS.upKbps)}`)
    .option('--dns <ms>', `lookup of a name in place of the link's, ${range(LINK_LIMITS.dnsMs)}`)
    .option('--protocol <version>', `one of ${PROTOCOLS.join(', ')}`)
    .option('--tls <version>', `one of ${TLS_VERSIONS.join(', ')}`)
    .option('--order <order>', `in which the server sends what is ready: ${ORDERS.join(', ')}`)
    .option('--loss <percent>', `packets to the browser that are lost at random, ${range(LINK_LIMITS.lossPercent)}`)
    .option('--cpu <factor>', `times slower than the reference machine, ${range(DEVICE_LIMITS.cpuFactor)}`)
    .option('--viewport <WxH>', 'size of the screen in CSS pixels, as in 390x844')
    .option('--touch', 'a touch screen: no approach before an act')
    .option('--no-touch', 'a pointer')
    .option('--data-saver', 'the person asked the browser to save data');
}

/** The conditions that options name; throws InputError for a name that isn't known. */
export function conditionsOf(options: ConditionOptions): Conditions {
  const link = namedLink(options.link);
  if (!link)
    throw new InputError(
      'No such link',
      `Choose one of ${LINKS.map((l) => l.id).join(', ')}.`,
      `--link ${options.link}`,
    );
  const device = namedDevice(options.device);
  if (!device)
    throw new InputError(
      'No such device',
      `Choose one of ${DEVICES.map((d) => d.id).join(', ')}.`,
      `--device ${options.device}`,
    );
  const cache = CACHE_STATES.find((c) => c === options.cache);
  if (!cache)
    throw new InputError(
      'No such cache state',
      `Choose one of ${CACHE_STATES.join(', ')}.`,
      `--cache ${options.cache}`,
    );
  return { link: ownLink(link, options), device: ownDevice(device, options), cache };
}

/** A number that an option gives, within its limits; throws InputError that names the option. */
function amount(
  option: string,
  said: string | undefined,
  otherwise: number,
  limits: readonly [number, number],
): number {
  if (said === undefined) return otherwise;
  const value = Number(said);
  const [least, most] = limits;
  if (said.trim() === '' || !(value >= least && value <= most))
    throw new InputError('Not such a number', `Give a number from ${least} to ${most}.`, `--${option} ${said}`);
  return value;
}

function oneOf<T extends string>(option: string, said: string | undefined, otherwise: T, choices: readonly T[]): T {
  if (said === undefined) return otherwise;
  const found = choices.find((c) => c === said);
  if (found === undefined)
    throw new InputError('No such choice', `Choose one of ${choices.join(', ')}.`, `--${option} ${said}`);
  return found;
}

/** The named link, with what of it was given by its value. */
function ownLink(link: Link, { rtt, down, up, dns, protocol, tls, order, loss }: ConditionOptions): Link {
  if ([rtt, down, up, dns, protocol, tls, order, loss].every((given) => given === undefined)) return link;
  return linkOf(
    ownLinkId({
      ...link,
      rttMs: amount('rtt', rtt, link.rttMs, LINK_LIMITS.rttMs),
      downKbps: amount('down', down, link.downKbps, LINK_LIMITS.downKbps),
      upKbps: amount('up', up, link.upKbps, LINK_LIMITS.upKbps),
      dnsMs: amount('dns', dns, link.dnsMs, LINK_LIMITS.dnsMs),
      protocol: oneOf('protocol', protocol, link.protocol, PROTOCOLS),
      tls: oneOf('tls', tls, link.tls, TLS_VERSIONS),
      serverScheduling: oneOf('order', order, link.serverScheduling, ORDERS),
      lossPercent: amount('loss', loss, 0, LINK_LIMITS.lossPercent),
    }),
  );
}

/** The named device, in the same way. */
function ownDevice(device: Device, { cpu, viewport, touch, dataSaver }: ConditionOptions): Device {
  if ([cpu, viewport, touch, dataSaver].every((given) => given === undefined)) return device;
  const [, width, height] = viewport === undefined ? [] : (/^(\d+)x(\d+)$/.exec(viewport) ?? [null, '', '']);
  return deviceOf(
    ownDeviceId({
      ...device,
      cpuFactor: amount('cpu', cpu, device.cpuFactor, DEVICE_LIMITS.cpuFactor),
      viewport: {
        width: amount('viewport', width, device.viewport.width, DEVICE_LIMITS.width),
        height: amount('viewport', height, device.viewport.height, DEVICE_LIMITS.height),
      },
      touch: touch ?? device.touch,
      dataSaver: dataSaver ?? device.dataSaver,
    }),
  );
}

/** The option by which several sets of conditions are given at once. */
export const FOR = [
  '--for <conditions>',
  'LINK/DEVICE=WEIGHT; several times for several at once',
  (value: string, before: string[]): string[] => [...before, value],
  [] as string[],
] as const;

/** The sets of conditions that were given, with their weights; without any, the one of the other options. */
export function circumstancesOf(options: ConditionOptions & { for: string[] }): Circumstance[] {
  if (options.for.length === 0)
    return [{ name: `${options.link}, ${options.device}`, conditions: conditionsOf(options), share: 1 }];
  return options.for.map((text) => {
    const [, link, device, weight] = /^([^/]+)\/([^=]+)=(.+)$/.exec(text) ?? [];
    const share = Number(weight);
    if (!link || !device || !(share >= 0))
      throw new InputError(
        'Not a set of conditions',
        'Write it as LINK/DEVICE=WEIGHT, for instance clear-cell/laptop=2.',
        `--for ${text}`,
      );
    return { name: `${link}, ${device}`, conditions: conditionsOf({ ...options, link, device }), share };
  });
}
