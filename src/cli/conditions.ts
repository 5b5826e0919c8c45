import type { Command } from 'commander';
import type { Circumstance } from '../core/choose/types.ts';
import { InputError } from '../core/errors.ts';
import { CACHE_STATES, type Conditions, DEVICES, LINKS } from '../core/sim/conditions.ts';

export interface ConditionOptions {
  link: string;
  device: string;
  cache: string;
}

/** Adds the options by which conditions are named. */
export function withConditionOptions(command: Command): Command {
  return command
    .option('--link <id>', `one of ${LINKS.map((l) => l.id).join(', ')}`, LINKS[0].id)
    .option('--device <id>', `one of ${DEVICES.map((d) => d.id).join(', ')}`, DEVICES[0].id)
    .option('--cache <state>', `one of ${CACHE_STATES.join(', ')}`, 'empty');
}

/** The conditions that options name; throws InputError for a name that isn't known. */
export function conditionsOf(options: ConditionOptions): Conditions {
  const link = LINKS.find((l) => l.id === options.link || l.name === options.link);
  if (!link)
    throw new InputError(
      'No such link',
      `Choose one of ${LINKS.map((l) => l.id).join(', ')}.`,
      `--link ${options.link}`,
    );
  const device = DEVICES.find((d) => d.id === options.device || d.name === options.device);
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
  return { link, device, cache };
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
        'Write it as LINK/DEVICE=WEIGHT, for instance clear-4g/laptop=2.',
        `--for ${text}`,
      );
    return { name: `${link}, ${device}`, conditions: conditionsOf({ ...options, link, device }), share };
  });
}
