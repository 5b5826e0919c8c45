'use client';

import { useMemo } from 'react';
import { areaOf, asRead, readName, withChange, withoutRoute, withRoute } from '../../../../core/amend/edit.ts';
import { InputError } from '../../../../core/errors.ts';
import type { Route, RouteChange } from '../../../../core/snapshot/route-types.ts';
import { ADDRESS_PATTERN } from '../../../../core/snapshot/route-types.ts';
import { counted } from '../../../../core/text/counted.ts';
import { useAmendments } from '../../../state/amendments.ts';
import { useWorkbench } from '../../../state/workbench.ts';

/** What can be done with the route that is chosen; each is a step that can be undone. */
export function useEditor(route: Route) {
  const amendments = useAmendments();
  const routes = useWorkbench((s) => s.app?.routes);
  const amend = useWorkbench((s) => s.amend);
  const choose = useWorkbench((s) => s.choose);
  return useMemo(() => {
    const all = routes ?? [];
    const area = areaOf(all, route);
    const name = readName(amendments, route);
    const corrected = amendments.routes.find((a) => a.realm === name.realm && a.pattern === name.pattern);
    const words = (what: string) => `${route.pattern}: ${what}`;
    return {
      area,
      /** Null when the route is as it was read. */
      corrected: corrected?.kind ?? null,
      change: (change: RouteChange, what: string) => amend(withChange(amendments, route, change), words(what)),
      /** The same change to all routes of the area. */
      changeArea: (change: RouteChange, what: string) =>
        amend(
          area.reduce((made, r) => withChange(made, r, change), amendments),
          `${counted(area.length, 'route')}: ${what}`,
        ),
      rename: (pattern: string) => {
        amend(withChange(amendments, route, { pattern }), words(`now ${pattern}`));
        choose({ route: pattern });
      },
      remove: () => amend(withoutRoute(amendments, route), words('left out')),
      undoAll: () => {
        amend(asRead(amendments, route), words('as read'));
        choose({ route: name.pattern });
      },
    };
  }, [amendments, routes, route, amend, choose]);
}

/** Adds a route by hand. */
export function useAddRoute(): (realm: string, pattern: string, page: string) => void {
  const amendments = useAmendments();
  const amend = useWorkbench((s) => s.amend);
  const choose = useWorkbench((s) => s.choose);
  return (realm, pattern, page) => {
    amend(withRoute(amendments, { realm, pattern }, page), `add ${pattern}`);
    choose({ route: pattern });
  };
}

/** What is wrong with an address pattern for a route; null when nothing is. */
export function patternTrouble(pattern: string, realm: string, routes: readonly Route[]): string | null {
  if (routes.some((r) => r.realm === realm && r.pattern === pattern))
    return `There is a route ${pattern} already; patterns must differ.`;
  try {
    ADDRESS_PATTERN.check(pattern, 'pattern');
    return null;
  } catch (error) {
    return error instanceof InputError ? error.detail : String(error);
  }
}
