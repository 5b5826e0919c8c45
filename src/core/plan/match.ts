import type { Module } from '../snapshot/module-types.ts';
import { wildcard } from '../text/wildcard.ts';
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
