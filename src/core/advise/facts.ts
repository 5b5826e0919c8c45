import { decisionWords, subjectOf } from '../plan/decisions.ts';
import type { Plan } from '../plan/types.ts';
import { troublesOf } from '../ship/shipped.ts';
import type { NoticeKind, Snapshot } from '../snapshot/types.ts';
import type { Fact } from './types.ts';

const WORTH: Partial<Record<NoticeKind, string>> = {
  development: 'is a development build',
  unminified: 'is not minified',
  uncompressed: 'is served without compression',
  'inline map': 'carries its source map inside',
  base: 'is not where its documents look for it',
};

/** What is worth knowing and has no measured effect: plan entries that match nothing, output that isn't fit to ship. */
export function factsOf(app: Snapshot, plan: Plan): Fact[] {
  const stale = troublesOf(app, plan).stale.map(({ decision, reason }): Fact => {
    const subject = subjectOf(plan.decisions[decision]);
    return {
      id: `stale ${subject}`,
      what: `“${decisionWords(plan.decisions[decision])}” no longer matches the code`,
      why: `It is kept and does nothing: ${reason}.`,
      withdraw: [subject],
    };
  });
  const kinds = new Map<NoticeKind, { path: string; message: string }[]>();
  for (const { kind, path, message } of app.notices) kinds.set(kind, [...(kinds.get(kind) ?? []), { path, message }]);
  const built = [...kinds].flatMap(([kind, found]): Fact[] => {
    const words = WORTH[kind];
    if (!words) return [];
    const [first] = found;
    const more = found.length > 1 ? ` and ${found.length - 1} more` : '';
    return [{ id: `notice ${kind}`, what: `${first.path}${more} ${words}`, why: first.message, withdraw: [] }];
  });
  return [...stale, ...built];
}
