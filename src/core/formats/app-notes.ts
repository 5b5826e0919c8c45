import { InputError } from '../errors.ts';
import { converted, type Of } from '../form/form.ts';
import { assumed, optional, partial, record } from '../form/records.ts';
import { AMOUNT, BYTES, listOf, MILLIS, mapOf, orNull, TEXT } from '../form/values.ts';
import { PLACEHOLDERS } from '../snapshot/placeholders.ts';
import { CONTENT, DATA_CALL, PART, RENDERING, ROUTE_DOCUMENT, ROUTE_FONT } from '../snapshot/route-types.ts';
import { VISITOR_NOTES } from '../snapshot/visitor-types.ts';
import { object } from '../text/fields.ts';
import { parseJson } from '../text/json.ts';

export const NOTES_FILE = 'yokeline.app.json';

const ROUTE_NOTES = record({
  rendering: optional(RENDERING),
  document: optional(ROUTE_DOCUMENT),
  content: assumed(listOf(CONTENT), []),
  fonts: optional(listOf(ROUTE_FONT)),
  data: assumed(listOf(DATA_CALL), []),
  /** Left out, those that are proposed from the code stay. */
  parts: optional(listOf(PART)),
  links: assumed(listOf(TEXT), []),
  landings: optional(AMOUNT),
  /** For a route that no table has: its page and layouts, outermost first. */
  page: optional(TEXT),
  layouts: optional(listOf(TEXT)),
});

/** What starts the app, where that isn't found. */
const ENTRY_NOTES = record({
  realm: assumed(TEXT, 'site'),
  /** The HTML file, from the folder that is read. */
  document: assumed(orNull(TEXT), null),
  modules: listOf(TEXT),
});

const SCRIPT_NOTES = partial({ name: TEXT, bytes: BYTES, serverMs: MILLIS, evaluationMs: MILLIS });

/**
 * What sources can't tell: how routes are rendered, how large their documents are and how long the server takes,
 * images and data calls, where parts stand on the screen. Kept beside the code, all of it optional.
 */
export const APP_NOTES = record({
  entries: assumed(listOf(ENTRY_NOTES), []),
  defaults: assumed(ROUTE_NOTES, {}),
  /** Parts of the outermost layout, which every route has. */
  shell: assumed(record({ parts: assumed(listOf(PART), []) }), {}),
  /** By pattern. */
  routes: assumed(
    converted(mapOf(ROUTE_NOTES), (routes) => new Map(Object.entries(routes))),
    {},
  ),
  /** By id. */
  scripts: assumed(
    converted(mapOf(SCRIPT_NOTES), (scripts) => new Map(Object.entries(scripts))),
    {},
  ),
  /** How long the component system keeps placeholders, where that isn’t what is known of it. */
  placeholders: optional(PLACEHOLDERS),
  /** What is known of the people who come. */
  visitors: optional(VISITOR_NOTES),
});
export type AppNotes = Of<typeof APP_NOTES>;

/** Notes that say nothing. */
export const NO_NOTES: AppNotes = APP_NOTES.check({}, '');

/** Reads the notes; throws InputError naming the field. */
export function parseNotes(source: string): AppNotes {
  try {
    return APP_NOTES.check(object(parseJson(source, NOTES_FILE), NOTES_FILE), '');
  } catch (error) {
    if (!(error instanceof InputError) || error.at === undefined || error.at.startsWith(NOTES_FILE)) throw error;
    throw new InputError(error.title, error.detail, `${NOTES_FILE}: ${error.at}`);
  }
}
