import type { Route } from '../../core/snapshot/route-types.ts';
import { saidIn } from '../parts/words.ts';
import { Messages } from './messages.ts';

/** Gives parts the words of the messages that acts name by their keys. The texts of the folder are only looked for where one does. */
export function sayMessages(routes: readonly Pick<Route, 'parts'>[], root: string): void {
  let messages: Messages | null = null;
  const messageOf = (key: string) => {
    messages ??= Messages.of(root);
    return messages.at(key);
  };
  for (const part of routes.flatMap((r) => r.parts))
    if (part.action !== undefined) part.action = saidIn(part.action, messageOf);
}
