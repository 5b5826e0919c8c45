import { named, type Of } from '../form/form.ts';
import { assumed, optional, record } from '../form/records.ts';
import { AMOUNT, BYTES, choice, FLAG, listOf, orNull, TEXT } from '../form/values.ts';
import { BASE } from './base.ts';
import { CLASSIC_SCRIPT, DOCUMENT_LINK } from './document-types.ts';
import { BROWSER_SHARE } from './measured-types.ts';
import { ENTRY, IMPORT, MODULE, PACKAGE } from './module-types.ts';
import { BUILT_OUTPUT } from './output-types.ts';
import { PLACEHOLDERS } from './placeholders.ts';
import { ROUTE_PROPOSAL, ROUTES, type Route, type RouteProposal } from './route-types.ts';
import { VISITOR_NOTES } from './visitor-types.ts';

/** An import of which no module was found. */
export const UNRESOLVED = record({
  from: TEXT,
  specifier: TEXT,
  line: AMOUNT,
  reason: TEXT,
  /** Not followed on purpose: a module of the server platform, an address on the network. */
  leftOut: assumed(FLAG, false),
});
export type Unresolved = Of<typeof UNRESOLVED>;

/** A file that couldn't be read. */
export const FAILED = record({ path: TEXT, line: AMOUNT, message: TEXT });
export type Failed = Of<typeof FAILED>;

export const NOTICE_KINDS = [
  'development',
  'unminified',
  'uncompressed',
  'inline map',
  'base',
  'unnamed file',
  'waiting module',
  'style order',
  'missing package',
  'outside',
  'other version',
  'font',
  'image',
] as const;
export type NoticeKind = (typeof NOTICE_KINDS)[number];

/** What is no error but worth knowing about how the app was built or read. */
export const NOTICE = record({ kind: choice(NOTICE_KINDS), path: TEXT, message: TEXT });
export type Notice = Of<typeof NOTICE>;

/** A style rule in which every selector needs a name that nothing mentions. */
export const STYLE_RULE = record({
  module: TEXT,
  line: AMOUNT,
  selector: TEXT,
  /** Minified bytes of the rule. */
  bytes: BYTES,
  /** The names (of classes, ids, elements) that nothing mentions, one per selector of the rule. */
  missing: listOf(TEXT),
});
export type StyleRule = Of<typeof STYLE_RULE>;

/** Which scripts mention names of a style sheet: the path of the sheet, and theirs. */
export const SHEET_USE = record({ module: TEXT, by: listOf(TEXT) });
export type SheetUse = Of<typeof SHEET_USE>;

/** The app as read; whether its parts fit together is checked by `checkSnapshot`. */
export const SNAPSHOT_FORM = named(
  'snapshot',
  record({
    /** Name of the app, from its package description or its folder. */
    name: TEXT,
    origin: choice(['source', 'output']),
    modules: listOf(MODULE),
    imports: listOf(IMPORT),
    packages: listOf(PACKAGE),
    entries: listOf(ENTRY),
    routes: ROUTES,
    /** What code shows of routes that a person had corrected before it was read. */
    proposals: assumed(listOf(ROUTE_PROPOSAL), []),
    /** Scripts that are not part of the module graph: third-party or classic ones, in document order. */
    scripts: listOf(CLASSIC_SCRIPT),
    /** Links in documents that ask for something ahead, in document order. */
    links: assumed(listOf(DOCUMENT_LINK), []),
    /** Under which addresses files are served: begins and ends with `/`, or a whole `https://…/`. */
    base: assumed(BASE, '/'),
    unresolved: listOf(UNRESOLVED),
    failed: listOf(FAILED),
    notices: assumed(listOf(NOTICE), []),
    /** Style rules whose names nothing in the app mentions. */
    unusedRules: assumed(listOf(STYLE_RULE), []),
    /** Which scripts mention names of a style sheet, for sheets that aren't for everybody. */
    sheetUses: assumed(listOf(SHEET_USE), []),
    /** How long the app’s component system keeps placeholders, where it does. */
    placeholders: optional(PLACEHOLDERS),
    /** Where a rehearsal told. */
    browserShare: optional(BROWSER_SHARE),
    /** What is said of the people who come, where anything is. */
    visitors: optional(VISITOR_NOTES),
    /** The real files, for a snapshot of a production output; null for one of sources. */
    output: assumed(orNull(BUILT_OUTPUT), null),
  }),
);

/**
 * The app as read at one moment. A snapshot is never edited; reading again makes a new one.
 * Sizes are in bytes, times in milliseconds, paths relative to the folder that was read, with `/`.
 */
export interface Snapshot extends Omit<Of<typeof SNAPSHOT_FORM>, 'routes' | 'proposals'> {
  routes: Route[];
  proposals: RouteProposal[];
}
