import zlib from 'node:zlib';
import { type AppNotes, NOTES_FILE } from '../core/formats/app-notes.ts';
import type { Entry } from '../core/snapshot/module-types.ts';
import type { CorrectedRoute, Rendering, Route } from '../core/snapshot/route-types.ts';
import type { Failed } from '../core/snapshot/types.ts';
import type { ImageAt } from './app-images.ts';
import { annotate, namesImages } from './app-notes.ts';
import { type ProposedContent, proposeContent } from './data/propose-data.ts';
import type { FoundEntry } from './entries/types.ts';
import { textInside } from './folder-files.ts';
import { kindOf } from './graph/kinds.ts';
import type { SourceGraph } from './graph/source-graph.ts';
import { drawnApp } from './parts/drawn-app.ts';
import type { DocumentElement, DrawnApp, DrawnRoute } from './parts/find-parts.ts';
import type { DirectoryRoute } from './routes/directory-routes.ts';
import { findRoutes } from './routes/find-routes.ts';
import { beginStep } from './watch.ts';

/** A route that a folder or a file stands for, with the realm that it belongs to. */
export type FolderRoute = DirectoryRoute & { realm: string; rendering: Rendering };

/** What the routes of an app are put together from. */
export interface RouteSources {
  root: string;
  found: readonly FoundEntry[];
  byFolders: readonly FolderRoute[];
  entries: readonly Entry[];
  /** Patterns of routes that notes give, whose files are all there. */
  described: ReadonlySet<string>;
  graph: SourceGraph;
  notes: AppNotes;
  corrected: readonly CorrectedRoute[];
}

/**
 * All routes of an app with the parts that are proposed for them: from tables and elements, from folders, of documents, and those that notes
 * give. `corrected`: those that a person corrected, with what is proposed for the page and layouts that they have by that; `drawn`: the app as far as it is drawn.
 */
export function routesOf(sources: RouteSources): {
  routes: Route[];
  corrected: Route[];
  failed: Failed[];
  drawn: DrawnApp;
} {
  const { root, found, byFolders, entries, graph, notes } = sources;
  const documentBytes = bytesOfDocuments(root, found);
  const noted = (route: Parameters<typeof annotate>[0]) =>
    annotate(route, notes, route.rendering === 'client' ? documentBytes.get(route.realm) : undefined);
  const tables = findRoutes(graph.routeModules());
  const layouts = new Set(byFolders.flatMap((r) => r.layouts));
  const inDocument = (realm: string) => elementsOf(found, realm);
  const fonts = graph.fonts();
  const imageAt: ImageAt = namesImages(notes) ? () => null : graph.imageAt;
  const drawnWith = (pages: ReadonlySet<string>) => drawnApp({ ...graph.drawn(), entries, layouts, pages, inDocument });
  const drawn = drawnWith(new Set([...tables.routes, ...byFolders].map((r) => r.page)));
  const proposedIn = (app: DrawnApp) => (r: DrawnRoute) => {
    beginStep(`finding what ${r.page} draws`);
    return { ...proposeContent(r, app, imageAt), ...(fonts.length > 0 ? { fonts } : {}) };
  };
  const proposed = proposedIn(drawn);
  const routes = [
    ...tables.routes.map(({ components, loaders, shellWaits, ...r }) => ({
      ...noted({ ...r, rendering: 'client', ...proposed({ ...r, components, loaders }) }),
      ...(shellWaits ? { shellWaits } : {}),
    })),
    ...firstOfEach(byFolders).map((r) => noted({ ...without(r), evidence: { path: r.page, line: 1 }, ...proposed(r) })),
  ];
  routes.push(...documentRoutes(found, entries, routes).map((r) => noted({ ...r, ...proposed(r) })));
  const failed: Failed[] = [...tables.failed, ...twins(byFolders)];
  for (const route of givenRoutes(sources, routes, failed)) routes.push(noted({ ...route, ...proposed(route) }));
  const rebuilt = correctedRoutes(sources, routes);
  if (rebuilt.length === 0) return { routes, corrected: [], failed, drawn };
  const isRebuilt = (r: Route) => rebuilt.some((c) => c.realm === r.realm && c.pattern === r.pattern);
  const others = routes.filter((r) => !isRebuilt(r));
  const proposedThen = proposedIn(drawnWith(new Set([...others, ...rebuilt].map((r) => r.page))));
  const corrected = rebuilt.map((r) => noted({ ...r, ...proposedThen(r) }));
  return { routes, corrected, failed, drawn };
}

/** Corrected routes whose files were all read. */
function correctedRoutes(
  { corrected, graph }: RouteSources,
  routes: readonly Route[],
): Omit<Parameters<typeof annotate>[0], keyof ProposedContent | 'fonts'>[] {
  const { moduleAt } = graph.drawn();
  return corrected.flatMap(({ realm, pattern, page, layouts }) => {
    const read = routes.find((r) => r.realm === realm && r.pattern === pattern);
    const drawn = page ?? read?.page;
    if (drawn === undefined) return [];
    const around = layouts ?? read?.layouts ?? [];
    if ([...around, drawn].some((path) => moduleAt(path) === undefined)) return [];
    return [{ realm, pattern, page: drawn, layouts: around, evidence: null, rendering: read?.rendering ?? 'client' }];
  });
}

/** Elements in the documents of a realm that scripts define. */
function elementsOf(found: readonly FoundEntry[], realm: string): DocumentElement[] {
  return found
    .filter((e) => e.realm === realm)
    .flatMap((e) => (e.html?.elements ?? []).map((element) => ({ ...element, path: e.document ?? '' })));
}

/** Routes that only notes give; a name in them that no route has is listed. */
function givenRoutes(
  { found, described, notes }: RouteSources,
  routes: readonly Route[],
  failed: Failed[],
): Omit<Parameters<typeof annotate>[0], keyof ProposedContent | 'fonts'>[] {
  const known = routes.map((r) => r.pattern);
  return [...notes.routes].flatMap(([pattern, { page, layouts = [] }]) => {
    if (known.includes(pattern)) return [];
    if (page !== undefined) {
      const { realm, rendering } = found[0];
      const evidence = { path: NOTES_FILE, line: 1 };
      return described.has(pattern) ? [{ pattern, layouts, page, realm, rendering, evidence }] : [];
    }
    const names = known.join(', ') || 'none';
    const message = `routes["${pattern}"] names a route that no table has (found: ${names})`;
    failed.push({ path: NOTES_FILE, line: 1, message });
    return [];
  });
}

/** Documents whose scripts hold no routes: each is a route of its own, and what it starts last is its page. */
function documentRoutes(
  found: readonly FoundEntry[],
  entries: readonly Entry[],
  routes: readonly { realm: string }[],
): Pick<Route, 'pattern' | 'realm' | 'layouts' | 'page' | 'evidence' | 'rendering'>[] {
  return found.flatMap(({ realm, document, html }, at) => {
    const page = entries[at].modules.findLast((m) => kindOf(m) === 'script');
    if (document === null || page === undefined || routes.some((r) => r.realm === realm)) return [];
    const rendering = html?.drawn ? 'server' : 'client';
    // A document into which a build writes its script lies in a folder of its own, and is served at the top.
    const pattern = realm === 'site' ? '/' : addressOf(document);
    return [{ pattern, realm, layouts: [], page, evidence: { path: document, line: 1 }, rendering }];
  });
}

/** The address of a document: that of its folder, or its own name. */
function addressOf(document: string): string {
  return `/${document.replace(/(^|\/)index\.html?$/, '$1').replace(/\/$/, '')}`;
}

/** A route of folders, without what only the reading of modules needs. */
function without<T extends { beside: string[] }>({ beside: _, ...route }: T): Omit<T, 'beside'> {
  return route;
}

function firstOfEach<T extends { pattern: string }>(routes: readonly T[]): T[] {
  return routes.filter((r, at) => routes.findIndex((o) => o.pattern === r.pattern) === at);
}

/** Folders that stand for one address twice: the first one counts. */
function twins(routes: readonly { pattern: string; page: string }[]): Failed[] {
  const first = new Map<string, string>();
  return routes.flatMap(({ pattern, page }) => {
    const other = first.get(pattern);
    if (other === undefined) {
      first.set(pattern, page);
      return [];
    }
    const message = `the route ${pattern} is there twice, here and in ${other}; the first one counts`;
    return [{ path: page, line: 1, message }];
  });
}

/** The compressed sizes of documents that are files, by realm. */
function bytesOfDocuments(root: string, found: readonly FoundEntry[]): Map<string, number> {
  return new Map(
    found.flatMap(({ realm, document, html }) =>
      document === null || html === null ? [] : [[realm, zlib.gzipSync(textInside(root, document)).length] as const],
    ),
  );
}
