import type { Module } from '../snapshot/types.ts';
import { object, text } from '../text/fields.ts';
import { LONGEST_PATTERN, wildcard } from '../text/wildcard.ts';
import type { Match } from './types.ts';

/** Whether a module is meant: by its package, or by its path (`*` within a folder, `**` across folders). */
export function matcher(match: Match): (module: Pick<Module, 'path' | 'package'>) => boolean {
  if ('package' in match) return (m) => m.package === match.package;
  const fits = wildcard(match.path);
  return (m) => fits(m.path);
}

/** Which modules are meant, in words. */
export function matchWords(match: Match): string {
  return 'package' in match ? match.package : match.path;
}

/** Checks a choice of modules that came from outside; throws InputError naming the field. */
export function checkMatch(value: unknown, at: string): Match {
  const item = object(value, at);
  if (item.package !== undefined) return { package: text(item.package, `${at}.package`) };
  return { path: text(item.path, `${at}.path`, LONGEST_PATTERN) };
}
