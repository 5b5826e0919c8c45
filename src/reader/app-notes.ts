import { InputError } from '../core/errors.ts';
import { checkContent, checkData, checkPart } from '../core/snapshot/check-routes.ts';
import { checkVisitorNotes } from '../core/snapshot/check-visitors.ts';
import type { ContentItem, DataCall, Part, Rendering, Route } from '../core/snapshot/types.ts';
import type { VisitorNotes } from '../core/snapshot/visitor-types.ts';
import { amount, type Fields, list, object, oneOf, text } from '../core/text/fields.ts';
import { parseJson } from '../core/text/json.ts';

export const NOTES_FILE = 'yokeline.app.json';

/**
 * What sources can't tell: how routes are rendered, how large their documents are and how long the server takes,
 * images and data calls, where parts stand on the screen. Kept beside the code, all of it optional.
 */
export interface AppNotes {
  defaults: RouteNotes;
  /** Parts of the outermost layout, which every route has. */
  shell: { parts: Part[] };
  routes: Map<string, RouteNotes>;
  scripts: Map<string, ScriptNotes>;
  /** What is known of the people who come. */
  visitors?: VisitorNotes;
}

interface RouteNotes {
  rendering?: Rendering;
  document?: { bytes: number; serverMs: number };
  content: ContentItem[];
  data: DataCall[];
  parts: Part[];
  links: string[];
  landings?: number;
}

interface ScriptNotes {
  name?: string;
  bytes?: number;
  serverMs?: number;
  evaluationMs?: number;
}

export const NO_NOTES: AppNotes = {
  defaults: { content: [], data: [], parts: [], links: [] },
  shell: { parts: [] },
  routes: new Map(),
  scripts: new Map(),
};

const DEFAULT_DOCUMENT = { bytes: 4000, serverMs: 60 };

/** Reads the notes; throws InputError naming the field. */
export function parseNotes(source: string): AppNotes {
  const item = object(parseJson(source, NOTES_FILE), NOTES_FILE);
  const routes = new Map<string, RouteNotes>();
  for (const [pattern, notes] of Object.entries(optional(item.routes, 'routes'))) {
    routes.set(pattern, routeNotes(notes, `${NOTES_FILE}: routes["${pattern}"]`));
  }
  const scripts = new Map<string, ScriptNotes>();
  for (const [id, notes] of Object.entries(optional(item.scripts, 'scripts'))) {
    scripts.set(id, scriptNotes(notes, `${NOTES_FILE}: scripts["${id}"]`));
  }
  const shell = optional(item.shell, 'shell');
  return {
    defaults: routeNotes(item.defaults ?? {}, `${NOTES_FILE}: defaults`),
    shell: { parts: items(shell.parts, `${NOTES_FILE}: shell.parts`, checkPart) },
    routes,
    scripts,
    ...(item.visitors === undefined ? {} : { visitors: checkVisitorNotes(item.visitors, `${NOTES_FILE}: visitors`) }),
  };
}

function routeNotes(value: unknown, at: string): RouteNotes {
  const item = object(value, at);
  const notes: RouteNotes = {
    content: items(item.content, `${at}.content`, checkContent),
    data: items(item.data, `${at}.data`, checkData),
    parts: items(item.parts, `${at}.parts`, checkPart),
    links: items(item.links, `${at}.links`, text),
  };
  if (item.landings !== undefined) notes.landings = amount(item.landings, `${at}.landings`);
  if (item.rendering !== undefined)
    notes.rendering = oneOf(item.rendering, ['server', 'client'] as const, `${at}.rendering`);
  if (item.document !== undefined) {
    const document = object(item.document, `${at}.document`);
    notes.document = {
      bytes: amount(document.bytes, `${at}.document.bytes`),
      serverMs: amount(document.serverMs, `${at}.document.serverMs`),
    };
  }
  return notes;
}

function scriptNotes(value: unknown, at: string): ScriptNotes {
  const item = object(value, at);
  const notes: ScriptNotes = {};
  if (item.name !== undefined) notes.name = text(item.name, `${at}.name`);
  for (const field of ['bytes', 'serverMs', 'evaluationMs'] as const) {
    if (item[field] !== undefined) notes[field] = amount(item[field], `${at}.${field}`);
  }
  return notes;
}

function optional(value: unknown, field: string): Fields {
  return value === undefined ? {} : object(value, `${NOTES_FILE}: ${field}`);
}

function items<T>(value: unknown, at: string, check: (item: unknown, at: string) => T): T[] {
  return value === undefined ? [] : list(value, at).map((item, i) => check(item, `${at}[${i}]`));
}

/** Adds what the notes know to a route that the code names; parts proposed from the code give way to noted ones. */
export function annotate(
  route: Pick<Route, 'pattern' | 'realm' | 'layouts' | 'page' | 'evidence' | 'rendering' | 'parts'>,
  { defaults, shell, routes }: AppNotes,
): Route {
  const own = routes.get(route.pattern);
  const noted = own !== undefined || shell.parts.length > 0 || defaults.parts.length > 0;
  const parts = noted ? [...shell.parts, ...(own?.parts ?? defaults.parts)] : route.parts;
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
    document: own?.document ?? defaults.document ?? DEFAULT_DOCUMENT,
    content: own?.content ?? defaults.content,
    data: own?.data ?? defaults.data,
    parts,
    links: own?.links ?? defaults.links,
    ...(landings === undefined ? {} : { landings }),
  };
}
