import type { Command } from 'commander';
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
