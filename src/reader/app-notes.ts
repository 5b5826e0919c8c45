import { InputError } from '../core/errors.ts';
import { type AppNotes, NOTES_FILE } from '../core/formats/app-notes.ts';
import type { Part, Route } from '../core/snapshot/route-types.ts';

/** Of a document that nobody has seen: compressed bytes, and what its server takes. */
const DEFAULT_DOCUMENT = { bytes: 4000, serverMs: 60 };

/** Whether notes name images: whoever writes some of them down knows them all. */
export function namesImages({ defaults, routes }: Pick<AppNotes, 'defaults' | 'routes'>): boolean {
  return [defaults, ...routes.values()].some((r) => r.content.length > 0);
}

/** Adds what the notes know to a route that the code names (`documentBytes`: the compressed size of its document, where that is a file); parts and calls proposed from the code give way to noted ones, and stay where none are noted. */
export function annotate(
  route: Pick<
    Route,
    'pattern' | 'realm' | 'layouts' | 'page' | 'evidence' | 'rendering' | 'parts' | 'data' | 'content' | 'fonts'
  >,
  { defaults, shell, routes }: AppNotes,
  documentBytes: number = DEFAULT_DOCUMENT.bytes,
): Route {
  const own = routes.get(route.pattern);
  const isOfShell = (part: Part) => shell.parts.some((p) => p.id === part.id || p.module === part.module);
  const said = own?.parts ?? defaults.parts;
  const parts = [...shell.parts, ...(said ?? route.parts.filter((p) => !isOfShell(p)))];
  // Whoever writes down calls anywhere knows them all.
  const saysData = [defaults, ...routes.values()].some((r) => r.data.length > 0);
  const fonts = own?.fonts ?? defaults.fonts ?? route.fonts;
  const landings = own?.landings ?? defaults.landings;
  const ids = new Set<string>();
  for (const part of parts) {
    if (ids.has(part.id)) {
      throw new InputError(
        'Two parts with one id',
        `Rename one of the parts called ${part.id}.`,
        `${NOTES_FILE}: routes["${route.pattern}"].parts`,
      );
    }
    ids.add(part.id);
  }
  return {
    ...route,
    rendering: own?.rendering ?? defaults.rendering ?? route.rendering,
    document: own?.document ?? defaults.document ?? { ...DEFAULT_DOCUMENT, bytes: documentBytes },
    content: namesImages({ defaults, routes }) ? (own?.content ?? defaults.content) : route.content,
    data: saysData ? (own?.data ?? defaults.data) : route.data,
    parts,
    links: own?.links ?? defaults.links,
    ...(fonts === undefined ? {} : { fonts }),
    ...(landings === undefined ? {} : { landings }),
  };
}
