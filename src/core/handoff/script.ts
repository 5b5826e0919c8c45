import type { ChunkGraph } from '../chunks/types.ts';
import type { Decision, Plan } from '../plan/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { FreeNames } from '../text/free-names.ts';
import { shortName } from '../text/short-name.ts';
import type { Trigger, TriggerKind } from '../vocabulary/triggers.ts';
import { needsScript, type PlannedLink, type RoutePlan } from './planned-links.ts';

/** What both kinds of script stand on; plain platform APIs. */
const HELPERS = `const savesData = () => navigator.connection?.saveData === true;

/** After the load event, when nothing else is to be done. */
export function whenIdle(then) {
  const wait = () => ('requestIdleCallback' in window ? requestIdleCallback(() => then()) : setTimeout(then, 200));
  if (document.readyState === 'complete') wait();
  else addEventListener('load', wait, { once: true });
}

export function afterFirstPaint(then) {
  requestAnimationFrame(() => setTimeout(then));
}

/** When an element that matches comes into view. */
export function whenVisible(selector, then) {
  const seen = new IntersectionObserver((entries) => {
    if (!entries.some((entry) => entry.isIntersecting)) return;
    seen.disconnect();
    then();
  });
  for (const element of document.querySelectorAll(selector)) seen.observe(element);
}

/** When the pointer or the focus rests on an element that matches; once. */
export function onApproach(selector, then) {
  let done = false;
  const near = ({ target }) => {
    if (done || !(target instanceof Element) || !target.closest(selector)) return;
    done = true;
    then();
  };
  for (const kind of ['pointerover', 'focusin', 'touchstart']) addEventListener(kind, near, { passive: true });
}

function addLink(attributes) {
  const link = document.createElement('link');
  for (const [name, value] of Object.entries(attributes)) link.setAttribute(name, value);
  document.head.append(link);
}
`;

/** A script that adds the hints which neither markup nor headers can give: one function for each route. */
export function hintScript(routes: readonly RoutePlan[]): string {
  const functions = routes.flatMap(({ pattern, links }) => {
    const own = links.filter(needsScript);
    if (own.length === 0) return [];
    const lines = own.map((link) => `    ${hintLine(link)}`);
    return [`  ${JSON.stringify(pattern)}: () => {\n${[...new Set(lines)].join('\n')}\n  },`];
  });
  if (functions.length === 0) return '';
  return `${HELPERS}
/** Call the one of the route that was landed on. Elements that lead to a part carry its name in data-leads-to. */
export const hints = {
${functions.join('\n')}
};
`;
}

function hintLine(link: PlannedLink): string {
  const { rel, href, as, crossorigin, fetchpriority, media, hint } = link;
  const attributes = {
    rel,
    href,
    ...(as ? { as } : {}),
    ...(crossorigin ? { crossorigin: '' } : {}),
    ...(fetchpriority ? { fetchpriority } : {}),
    ...(media ? { media } : {}),
  };
  const add = `addLink(${JSON.stringify(attributes)})`;
  const { target } = hint;
  const selector =
    target.kind === 'route'
      ? linkSelector(target.pattern)
      : `[data-leads-to=${cssString(target.kind === 'split point' ? shortName(target.module) : '')}]`;
  const begun = when(hint.on ?? { on: 'at once' }, `() => ${add}`, selector);
  return hint.notForDataSaver ? `if (!savesData()) ${begun}` : begun;
}

/** A text as a string of CSS (CSS Syntax Level 3, section 4.3.5). */
function cssString(text: string): string {
  return `"${text.replace(/["\\\p{Cc}]/gu, (c) => (/["\\]/.test(c) ? `\\${c}` : `\\${c.codePointAt(0)!.toString(16)} `))}"`;
}

/** Links to a route; of a pattern with parameters, what stands before the first. */
function linkSelector(pattern: string): string {
  const fixed = pattern.split(/[:*]/)[0];
  return fixed === pattern ? `a[href=${cssString(pattern)}]` : `a[href^=${cssString(fixed)}]`;
}

function when(trigger: Trigger, then: string, selector: string): string {
  switch (trigger.on) {
    case 'after first paint':
      return `afterFirstPaint(${then});`;
    case 'idle':
      return `whenIdle(${then});`;
    case 'after':
      return `setTimeout(${then}, ${trigger.ms});`;
    case 'visible':
      return `whenVisible(${JSON.stringify(selector)}, ${then});`;
    case 'approach':
      return `onApproach(${JSON.stringify(selector)}, ${then});`;
    case 'at once':
    case 'action':
    case 'media':
    case 'answer':
    case 'event':
      return `(${then})();`;
  }
}

/** Triggers that the code itself begins with, of the plan's decisions about them. */
const BEGUN: Record<TriggerKind, boolean> = {
  'at once': false,
  'after first paint': true,
  idle: true,
  after: true,
  visible: true,
  approach: true,
  action: false,
  media: false,
  answer: false,
  event: false,
};

/** A module that fetches split points at the plan's triggers; whoever shows them calls the same function. */
export function triggerScript(snapshot: Snapshot, plan: Plan, graph: ChunkGraph): string {
  const deferred = new Set(graph.roots.flatMap((r) => (r.kind === 'entry' ? [] : snapshot.modules[r.target[0]].path)));
  const planned = plan.decisions.filter(
    (d): d is Extract<Decision, { kind: 'trigger' }> =>
      d.kind === 'trigger' && BEGUN[d.fetch.on] && deferred.has(d.splitPoint),
  );
  if (planned.length === 0) return '';
  const names = new FreeNames();
  const lines = planned.map(({ splitPoint, fetch }) => {
    const base = `load${camel(shortName(splitPoint))}`;
    const name = names.give(base, (n) => `${base}${n}`);
    const page = snapshot.routes.find((r) => r.page === splitPoint);
    const selector = page ? linkSelector(page.pattern) : `[data-leads-to=${cssString(shortName(splitPoint))}]`;
    return `export const ${name} = () => import(${JSON.stringify(`./${splitPoint}`)});\n${when(fetch, name, selector)}`;
  });
  return `// Stands at the root of the sources. An import that was begun is joined by whoever imports the same module later.
${HELPERS.split('\n\n')
  .filter((part) => !/savesData|addLink/.test(part))
  .join('\n\n')
  .trimEnd()}

${lines.join('\n\n')}
`;
}

function camel(name: string): string {
  return name
    .split(/[^A-Za-z0-9]+/)
    .filter((s) => s !== '')
    .map((s) => s[0].toUpperCase() + s.slice(1))
    .join('');
}
