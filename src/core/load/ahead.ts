import type { Route } from '../snapshot/route-types.ts';
import { addGroups, type Compilation } from './compilation.ts';
import { walkLanding } from './landing.ts';
import { comesWithoutAct, momentOf } from './trigger-rules.ts';
import type { Action } from './types.ts';

/**
 * What a route fetches ahead of the routes that it links to, where the plan says so of their pages: their files (they
 * run only when somebody goes there), and their answers if these are wanted too. With `moment` only what is fetched
 * then; otherwise all that happens by itself. `page` is the part that stands for links in view.
 */
export function fetchedAhead(c: Compilation, route: Route, page: number, moment?: 'approach'): Action[] {
  const { snapshot, plan, graph, files } = c;
  const links = moment ? [route.pattern] : route.links;
  const actions: Action[] = [];
  for (const pattern of new Set(links)) {
    const to = snapshot.routes.find((r) => r.pattern === pattern);
    const trigger = to && plan.triggers.get(to.page);
    if (!to || !trigger || (to.realm !== route.realm && !moment)) continue;
    if (moment ? trigger.on !== moment : !comesWithoutAct(trigger)) continue;
    if (!moment && to.pattern === route.pattern) continue;
    const { landing } = walkLanding(snapshot, plan, graph, to);
    addGroups(landing, graph, files, to.page, snapshot);
    const when =
      trigger.on === 'visible'
        ? ({ when: 'visible', target: page } as const)
        : momentOf(moment ? { on: 'at once' } : trigger);
    const rel = moment || trigger.on === 'at once' ? 'modulepreload' : 'prefetch';
    const wanted = landing.roots.filter((l) => l.root !== landing.entry && (l.inChain || l.trigger.on === 'at once'));
    const resources = new Set(wanted.flatMap((l) => files.groups[files.groupOf(l.root)].resources));
    for (const resource of resources) actions.push({ ...when, do: files.ahead(resource, rel) });
    if (plan.settings.get(to.page)?.answerAhead === undefined) continue;
    const answers = to.rendering === 'server' ? [files.answer(to)] : to.data.map((d) => files.data(d));
    for (const resource of answers) actions.push({ ...when, do: { kind: 'fetch', resource, ahead: true } });
  }
  return actions;
}
