import { InputError } from '../errors.ts';
import { eachOnce } from '../form/cross-checks.ts';
import { named, type Of, refined } from '../form/form.ts';
import { assumed, assumedOrNull, optional, optionalOrNull, partial, record, variants } from '../form/records.ts';
import {
  AMOUNT,
  amountUpTo,
  BYTES,
  choice,
  constant,
  FLAG,
  listOf,
  MILLIS,
  mapOf,
  orNull,
  PIXELS,
  SHARE,
  TEXT,
  textOr,
} from '../form/values.ts';

/** Assumed of a server of which nothing is said, in ms. */
export const DEFAULT_SERVER_MS = 5;

/** Where something was found. */
export const EVIDENCE = named('evidence', record({ path: TEXT, line: AMOUNT }));
export type Evidence = Of<typeof EVIDENCE>;

export const PART_PLACES = ['first screen', 'below', 'action', 'conditional'] as const;
export type PartPlace = (typeof PART_PLACES)[number];

/** On what it depends whether a part is drawn. */
const CONDITION = variants('kind', {
  media: record({ minWidth: optional(PIXELS), maxWidth: optional(PIXELS) }),
  answer: record({ of: TEXT }),
  segment: record({ segment: TEXT }),
  'one of': record({ group: TEXT }),
});
export type PartCondition = Of<typeof CONDITION>;

/** A request that an act makes, with the redirects that its answer goes through. */
const SUBMIT = record({
  serverMs: assumed(MILLIS, DEFAULT_SERVER_MS),
  /** Size of the last answer. */
  bytes: assumed(BYTES, 0),
  redirects: assumed(amountUpTo(20), 0),
});
export type Submit = Of<typeof SUBMIT>;

export const PART = named(
  'part',
  record({
    id: TEXT,
    name: TEXT,
    /** The module that draws it. */
    module: TEXT,
    place: choice(PART_PLACES),
    /** What the person does, for a part behind an action. */
    action: optional(TEXT),
    condition: optional(CONDITION),
    interactive: assumed(FLAG, true),
    /** Share of visits to this route in which it is needed. */
    share: assumed(SHARE, 1),
    /** Measured cost of drawing it for the first time in ms on the reference device (CPU factor 1), where somebody measured it. */
    drawMs: optional(MILLIS),
    /** Ids of the data calls and content that it shows. */
    needs: assumed(listOf(TEXT), []),
    /** Ids of the data calls whose answers have to be there before it is drawn, and so before a deferred one is asked for. */
    drawnAfter: optional(listOf(TEXT)),
    /** What the act sends to the server first; the part is asked for by its answer. */
    submit: optional(SUBMIT),
    /** The line of code that draws it, where the part was proposed from code. */
    evidence: optionalOrNull(EVIDENCE),
  }),
);
export interface Part extends Of<typeof PART> {
  /** Drawn on the server only, by a plan's decision: none of its script travels. */
  noScript?: true;
}

export const CONTENT = named(
  'content',
  record({
    id: TEXT,
    kind: assumedOrNull(constant('image'), 'image'),
    address: TEXT,
    bytes: BYTES,
    serverMs: assumed(MILLIS, DEFAULT_SERVER_MS),
    /** `document`: in the markup. Otherwise the module whose rendering asks for it. */
    foundIn: textOr('document', record({ module: TEXT })),
    place: assumedOrNull(choice(['first screen', 'below']), 'first screen'),
    lazy: assumed(FLAG, false),
    /** The line of code that draws it, where it was read from there. */
    evidence: optionalOrNull(EVIDENCE),
  }),
);
export type ContentItem = Of<typeof CONTENT>;

/** How text shows while its font is on its way (CSS Fonts, `font-display`); browsers take `auto` for `block`. */
export const FONT_DISPLAYS = ['auto', 'block', 'swap', 'fallback', 'optional'] as const;
export type FontDisplay = (typeof FONT_DISPLAYS)[number];

export const ROUTE_FONT = named(
  'font',
  record({
    id: TEXT,
    address: TEXT,
    bytes: BYTES,
    serverMs: assumed(MILLIS, DEFAULT_SERVER_MS),
    /** The style sheet that names it: its text can be laid out once that is there. */
    declaredBy: TEXT,
    /** Its file as a module of the app, where the build decides about the address. */
    module: optional(TEXT),
    display: assumedOrNull(choice(FONT_DISPLAYS), 'auto'),
    /** The line of the sheet that names it, where it was read from one. */
    evidence: optionalOrNull(EVIDENCE),
  }),
);
export type RouteFont = Of<typeof ROUTE_FONT>;

/** `evaluated`: as its module runs, or is there; `drawn`: as what draws its module is drawn; `shown`: once that shows. */
export const CALL_BEGINNINGS = ['evaluated', 'drawn', 'shown'] as const;
export type CallBeginning = (typeof CALL_BEGINNINGS)[number];

export const DATA_CALL = named(
  'data',
  record({
    id: TEXT,
    address: TEXT,
    bytes: BYTES,
    serverMs: MILLIS,
    /** The module that makes the call. */
    module: TEXT,
    /** When it makes it; where nothing is said, as it is drawn if something is known to draw it. */
    begins: optional(choice(CALL_BEGINNINGS)),
    /** The line of code where it begins, where the call was proposed from code. */
    evidence: optionalOrNull(EVIDENCE),
  }),
);
export type DataCall = Of<typeof DATA_CALL>;

/** Assumed of an answer until somebody says how large it is and how long the server takes for it: code tells neither. */
export const ASSUMED_ANSWER = { bytes: 2000, serverMs: 60 };

const PATTERN = /^\/[^\s?#]*$/;

/** An address pattern: begins with a slash, holds no spaces, query or fragment. */
export const ADDRESS_PATTERN = refined(
  TEXT,
  (pattern, at) => {
    if (PATTERN.test(pattern)) return;
    throw new InputError(
      'Not an address pattern',
      `${JSON.stringify(pattern)} must begin with / and hold no spaces, ? or #, as in /trips/:id.`,
      at,
    );
  },
  { pattern: PATTERN.source.replaceAll('\\/', '/') },
);

export const RENDERING = choice(['server', 'client']);
export type Rendering = Of<typeof RENDERING>;

export const ROUTE_DOCUMENT = record({
  bytes: BYTES,
  serverMs: MILLIS,
  /** Answers that only name the next address, the first of which people come by; each from its origin, an empty one for the app's own. */
  redirects: optional(listOf(record({ origin: TEXT, serverMs: MILLIS }))),
  /** Streamed: all up to so many bytes is sent so long after the first. */
  flushes: optional(listOf(record({ upTo: BYTES, atMs: MILLIS }))),
});

const ROUTE_FIELDS = {
  pattern: ADDRESS_PATTERN,
  realm: TEXT,
  /** Outermost first. */
  layouts: listOf(TEXT),
  page: TEXT,
  /** Where the route table names it. */
  evidence: assumed(orNull(EVIDENCE), null),
  rendering: RENDERING,
  document: ROUTE_DOCUMENT,
  content: listOf(CONTENT),
  /** Fonts that the text of the first screen is written in. */
  fonts: listOf(ROUTE_FONT),
  data: listOf(DATA_CALL),
  parts: listOf(PART),
  links: listOf(TEXT),
  /** Ids of the data calls whose answers the router waits for before it draws the page. */
  pageAfter: listOf(TEXT),
  /** How many of all landings are on this route, in any unit; all routes count alike where none says. */
  landings: AMOUNT,
  /** Measured: what drawing takes for the first time, in ms on the reference device, of `shell`, `page`, and split points that are no parts (by path). */
  draws: mapOf(MILLIS),
  /** Measured: the shell shows only with the page. */
  shellWaits: FLAG,
};

export const ROUTE = named(
  'route',
  record({
    ...ROUTE_FIELDS,
    fonts: optional(ROUTE_FIELDS.fonts),
    pageAfter: optional(ROUTE_FIELDS.pageAfter),
    landings: optional(ROUTE_FIELDS.landings),
    draws: optional(ROUTE_FIELDS.draws),
    shellWaits: optional(ROUTE_FIELDS.shellWaits),
  }),
);
export interface Route extends Omit<Of<typeof ROUTE>, 'parts'> {
  parts: Part[];
}

const { realm, evidence, draws, shellWaits, ...CHANGEABLE } = ROUTE_FIELDS;

/** Corrections to a route: every field but where it was found; those that are left out stay as read. */
export const ROUTE_CHANGE = named(
  'routeChange',
  partial({ ...CHANGEABLE, parts: refined(CHANGEABLE.parts, withOneIdEach) }),
);
export type RouteChange = Of<typeof ROUTE_CHANGE>;

/** A route whose page or layouts a person corrected, by its name as read; what is left out is as read. */
export type CorrectedRoute = Pick<Route, 'realm' | 'pattern'> & Partial<Pick<Route, 'page' | 'layouts'>>;

/** What code shows of a route whose page or layouts were corrected before it was read: the route by its name as read, and what was proposed for these modules. */
export const ROUTE_PROPOSAL = named(
  'routeProposal',
  record({
    realm: ROUTE_FIELDS.realm,
    pattern: ROUTE_FIELDS.pattern,
    page: ROUTE_FIELDS.page,
    layouts: ROUTE_FIELDS.layouts,
    content: ROUTE_FIELDS.content,
    data: ROUTE_FIELDS.data,
    parts: ROUTE_FIELDS.parts,
    pageAfter: optional(ROUTE_FIELDS.pageAfter),
  }),
);
export interface RouteProposal extends Omit<Of<typeof ROUTE_PROPOSAL>, 'parts'> {
  parts: Part[];
}

function withOneIdEach(parts: readonly Part[], at: string): void {
  eachOnce(
    parts.map((part) => part.id),
    (i, id) => new InputError('Two parts with one name', `Rename one of those called ${id}.`, `${at}[${i}].id`),
  );
}

/** The routes of an app; each pattern is there once. */
export const ROUTES = refined(listOf(ROUTE), (routes, at) =>
  eachOnce(
    routes.map((r) => `${r.realm} ${r.pattern}`),
    (i) =>
      new InputError(
        'Two routes with one pattern',
        `${routes[i].pattern} is there more than once; keep one.`,
        `${at}[${i}].pattern`,
      ),
  ),
);
