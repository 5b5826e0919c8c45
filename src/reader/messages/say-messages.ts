import type { Route } from '../../core/snapshot/route-types.ts';
import { saidIn } from '../parts/words.ts';
import { hasKey } from './keyed.ts';
import { Messages } from './messages.ts';

/** Gives parts the words of the messages that acts name by their keys. The texts of the folder are only looked for where one does. */
export function sayMessages(routes: readonly Pick<Route, 'parts'>[], root: string): void {
  const named = routes.flatMap(({ parts }) => parts.filter((p) => p.action !== undefined && hasKey(p.action)));
  if (named.length === 0) return;
  const messages = Messages.of(root);
  for (const part of named) part.action = saidIn(part.action!, messages.at);
}
