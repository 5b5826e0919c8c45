import { isPatient } from '../load/tag.ts';
import { escapedAttribute, htmlComment } from '../text/html-text.ts';
import { oneLine, plainAddress } from '../text/one-line.ts';
import type { DocumentHintKind } from '../vocabulary/hints.ts';
import { isDocumentHint } from '../vocabulary/hints.ts';
import type { PlannedLink, RoutePlan } from './planned-links.ts';
import { CARRIED, needsScript } from './planned-links.ts';

/** The `link` elements of each route's head, in order, as HTML; those that belong after its scripts and styles apart. */
export function markupText(routes: readonly RoutePlan[]): string {
  return routes
    .flatMap((route) => {
      const { pattern, priorities } = route;
      const { first, last } = headTags(route);
      const notes = priorities.map(
        ({ address, priority }) => `<!-- on the tag of ${htmlComment(address)}: fetchpriority="${priority}" -->`,
      );
      const end = last.length > 0 ? [`<!-- ${htmlComment(pattern)}, at the end of the head -->`, ...last] : [];
      const start = [...first, ...notes];
      return [
        ...(start.length > 0 ? [[`<!-- ${htmlComment(pattern)} -->`, ...start].join('\n')] : []),
        ...(end.length > 0 ? [end.join('\n')] : []),
      ];
    })
    .join('\n\n');
}

/** The tags that go before the other tags of a route's head, and those that go after them. */
export function headTags({ links }: RoutePlan): { first: string[]; last: string[] } {
  const own = links.filter((l) => CARRIED[l.hint.place].by === 'markup' && !needsScript(l));
  const tags = (some: readonly PlannedLink[]) => [...new Set(some.map(tagOf))];
  return { first: tags(own.filter((l) => !isPatient(l))), last: tags(own.filter(isPatient)) };
}

function tagOf(link: PlannedLink): string {
  const { rel, as, crossorigin, fetchpriority, media } = link;
  const attributes = [
    `rel="${rel}"`,
    `href="${escapedAttribute(hrefOf(link))}"`,
    ...(as ? [`as="${as}"`] : []),
    ...(crossorigin ? ['crossorigin'] : []),
    ...(fetchpriority ? [`fetchpriority="${fetchpriority}"`] : []),
    ...(media ? [`media="${media}"`] : []),
  ];
  return `<link ${attributes.join(' ')}>`;
}

/** Where a link leads; a stand-in is replaced as it is. */
function hrefOf({ href, standIn }: PlannedLink): string {
  return standIn ? href : plainAddress(href);
}

/** `Link` fields (RFC 8288) of the final answer, or of early hints (RFC 8297), by route. */
export function headerText(routes: readonly RoutePlan[], as: 'headers' | 'early-hints'): string {
  return routes
    .flatMap(({ pattern, links }) => {
      const own = links.filter((l) => CARRIED[l.hint.place].by === as);
      if (own.length === 0) return [];
      const status = as === 'early-hints' ? ['HTTP/1.1 103 Early Hints'] : [];
      const always = own.filter((l) => !l.hint.notForDataSaver).map(fieldOf);
      const spared = own.filter((l) => l.hint.notForDataSaver).map(fieldOf);
      const unless = spared.length > 0 ? ['# unless the request says Save-Data: on', ...new Set(spared)] : [];
      return [[`# ${oneLine(pattern)}`, ...status, ...new Set(always), ...unless].join('\n')];
    })
    .join('\n\n');
}

function fieldOf(link: PlannedLink): string {
  const { rel, as, crossorigin, fetchpriority, media } = link;
  const parameters = [
    `rel=${rel}`,
    ...(as ? [`as=${as}`] : []),
    ...(crossorigin ? ['crossorigin'] : []),
    ...(fetchpriority ? [`fetchpriority=${fetchpriority}`] : []),
    ...(media ? [`media="${media}"`] : []),
  ];
  return `Link: <${hrefOf(link)}>; ${parameters.join('; ')}`;
}

interface Rule {
  where: { href_matches: string };
  eagerness: 'immediate' | 'moderate';
}

/** What speculation rules call what a hint about a document does. */
const ACTIONS: Record<DocumentHintKind, string> = {
  'prefetch document': 'prefetch',
  'prepare document': 'prerender',
};

/** Speculation rules of each route whose document carries any, as JSON by route. */
export function rulesText(routes: readonly RoutePlan[]): string {
  const all = routes.flatMap(({ pattern, rules }) => {
    const of = new Map<string, Rule[]>();
    for (const { kind, target, on } of rules) {
      if (!isDocumentHint(kind) || target.kind !== 'route') continue;
      const own = of.get(ACTIONS[kind]) ?? [];
      of.set(ACTIONS[kind], own);
      own.push({
        where: { href_matches: target.pattern },
        eagerness: on?.on === 'approach' ? 'moderate' : 'immediate',
      });
    }
    const said = Object.values(ACTIONS).flatMap((action) => {
      const own = of.get(action);
      return own ? [[action, own] as const] : [];
    });
    return said.length === 0 ? [] : [[pattern, Object.fromEntries(said)] as const];
  });
  // It is put into a script element, which a name must not end.
  return all.length === 0 ? '' : JSON.stringify(Object.fromEntries(all), null, 2).replace(/</g, '\\u003c');
}
