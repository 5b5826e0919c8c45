import type { PlannedApp } from '../chunks/planned.ts';
import { compileHints } from '../load/compile.ts';
import { mediaQuery } from '../load/media-query.ts';
import type { FetchPriority } from '../load/types.ts';
import type { Hint, HintPlace } from '../vocabulary/hints.ts';
import { isDocumentHint } from '../vocabulary/hints.ts';
import type { Addresses } from './addresses.ts';
import type { ShippedKind } from './types.ts';

/** A link as the plan wants it in the document of a route. */
export interface PlannedLink {
  hint: Hint;
  rel: string;
  href: string;
  /** Whether `href` is a stand-in that is to be replaced. */
  standIn: boolean;
  as: string | null;
  crossorigin: boolean;
  fetchpriority: Exclude<FetchPriority, 'auto'> | null;
  media: string | null;
}

/** What a plan's hints come to on one route. */
export interface RoutePlan {
  pattern: string;
  links: PlannedLink[];
  /** Speculation rules. */
  rules: Hint[];
  /** Fetch priorities for tags that are there, by address. */
  priorities: { address: string; priority: string }[];
}

/** The hints of a plan for every route whose document carries any. */
export function plannedLinks(app: PlannedApp, addresses: Addresses): RoutePlan[] {
  return app.snapshot.routes
    .map(({ pattern, fonts }): RoutePlan => {
      const { hints, resources } = compileHints(app, pattern);
      return {
        pattern,
        links: hints.flatMap(({ hint, links }) =>
          links.map((link) => {
            const file = resources[link.resource];
            const { rel, as, crossorigin = false, fetchpriority } = link;
            const chunk = file?.chunk;
            const font = fonts?.find((f) => f.address === file?.address && f.module !== undefined);
            const href =
              chunk !== undefined
                ? addresses.of(chunk)
                : font
                  ? addresses.ofFile(font.module!)
                  : (file?.address ?? link.origin ?? '');
            return {
              hint,
              rel,
              href,
              standIn: addresses.standIns.has(href),
              // What a prefetch or a module preload is for goes without saying.
              as: rel === 'preload' ? (as ?? null) : null,
              crossorigin: rel !== 'prefetch' && rel !== 'modulepreload' && crossorigin,
              fetchpriority: fetchpriority === 'high' || fetchpriority === 'low' ? fetchpriority : null,
              media: hint.media ? mediaQuery(hint.media) : null,
            };
          }),
        ),
        rules: hints.flatMap(({ hint }) => (isDocumentHint(hint.kind) ? [hint] : [])),
        priorities: hints.flatMap(({ hint: { kind, target, priority } }) =>
          kind === 'fetch priority' && target.kind === 'asset' && priority
            ? [{ address: target.address, priority }]
            : [],
        ),
      };
    })
    .filter((r) => r.links.length + r.rules.length + r.priorities.length > 0);
}

/** Whether only a script can give it: at a trigger, or (which markup can't tell) not to people who save data. */
export function needsScript({ hint }: PlannedLink): boolean {
  const { by, sparesDataSavers } = CARRIED[hint.place];
  return by === 'hint-script' || (!sparesDataSavers && hint.notForDataSaver === true);
}

/** Which artefact carries the hints of a place, and whether it can leave some out for data savers. */
export const CARRIED: Record<HintPlace, { by: ShippedKind; sparesDataSavers: boolean }> = {
  markup: { by: 'markup', sparesDataSavers: false },
  header: { by: 'headers', sparesDataSavers: true },
  early: { by: 'early-hints', sparesDataSavers: true },
  script: { by: 'hint-script', sparesDataSavers: true },
};
