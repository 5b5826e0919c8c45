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
  return [...stale, ...built, ...aboutDocuments(app), ...fontsAskedOtherwise(app)];
}

/** What documents themselves hold back: redirects before them, and scripts that wait for the end of a streamed one. */
function aboutDocuments({ routes }: Snapshot): Fact[] {
  return routes.flatMap(({ pattern, document, rendering }): Fact[] => {
    const { redirects = [], flushes = [] } = document;
    const far = redirects.filter((r) => r.origin !== '').length;
    const last = Math.max(0, ...flushes.map((f) => f.atMs));
    const found: Fact[] = [];
    if (redirects.length > 0)
      found.push({
        id: `redirects ${pattern}`,
        what: `people come to ${pattern} by ${redirects.length === 1 ? 'a redirect' : `${redirects.length} redirects`}`,
        why: `Each takes a round trip and its server’s time before the document can be asked for${far > 0 ? ', and one from another origin looks its name up and connects first' : ''}. Let links name the last address.`,
        withdraw: [],
      });
    if (rendering === 'server' && last > 0)
      found.push({
        id: `streamed ${pattern}`,
        what: `the scripts of ${pattern} wait for the end of its streamed document`,
        why: `Deferred and module scripts run when the last piece is there, ${last} ms after the first. A module script that is marked async runs once it has come.`,
        withdraw: [],
      });
    return found;
  });
}

/** Links that fetch a font ahead in another way than style sheets ask for it (CSS Fonts: without credentials). */
function fontsAskedOtherwise({ links, routes }: Snapshot): Fact[] {
  const fonts = new Set(routes.flatMap((r) => r.fonts ?? []).map((f) => f.address));
  return links.flatMap(({ rel, address, as, crossorigin, evidence }): Fact[] => {
    if (rel !== 'preload' || crossorigin || !(as === 'font' || fonts.has(address))) return [];
    return [
      {
        id: `font preload ${address}`,
        what: `the preload of ${address} lacks crossorigin`,
        why: `Fonts are asked for without credentials: a browser can’t join this one while it is on its way, asks again once it is there, and warns (${evidence.path}, line ${evidence.line}).`,
        withdraw: [],
      },
    ];
  });
}
