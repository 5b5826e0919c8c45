import { InputError } from '../errors.ts';
import { amount, bytesOf, each, type Fields, flag, list, millisOf, object, oneOf, text } from '../text/fields.ts';
import {
  type ClassicScript,
  type ContentItem,
  type DataCall,
  type Evidence,
  PART_PLACES,
  type Part,
  type PartCondition,
  type Route,
  SCRIPT_PLACEMENTS,
  type Submit,
} from './types.ts';

const DEFAULT_SERVER_MS = 5;

/** Checks routes that came from outside; throws InputError naming the field. */
export function checkRoutes(value: unknown, at: string): Route[] {
  const routes = list(value, at).map((r, i) => checkRoute(r, `${at}[${i}]`));
  const seen = new Set<string>();
  routes.forEach((r, i) => {
    const key = `${r.realm} ${r.pattern}`;
    if (seen.has(key)) {
      throw new InputError(
        'Two routes with one pattern',
        `${r.pattern} is there more than once; keep one.`,
        `${at}[${i}].pattern`,
      );
    }
    seen.add(key);
  });
  return routes;
}

function checkRoute(value: unknown, at: string): Route {
  const item = object(value, at);
  return {
    pattern: checkPattern(item.pattern, `${at}.pattern`),
    realm: text(item.realm, `${at}.realm`),
    layouts: texts(item.layouts, `${at}.layouts`),
    page: text(item.page, `${at}.page`),
    evidence: checkEvidence(item.evidence, `${at}.evidence`),
    rendering: oneOf(item.rendering, RENDERINGS, `${at}.rendering`),
    document: checkDocument(item.document, `${at}.document`),
    content: each(item.content, `${at}.content`, checkContent),
    data: each(item.data, `${at}.data`, checkData),
    parts: each(item.parts, `${at}.parts`, checkPart),
    links: texts(item.links, `${at}.links`),
    ...(item.landings === undefined ? {} : { landings: amount(item.landings, `${at}.landings`) }),
  };
}

const RENDERINGS = ['server', 'client'] as const;

/** What can be corrected on a route: every field but where it was found. */
export type RouteChange = Partial<Omit<Route, 'realm' | 'evidence'>>;

/** Checks corrections to a route; fields that are left out stay as read. Throws InputError naming the field. */
export function checkRouteChange(value: unknown, at: string): RouteChange {
  const item = object(value, at);
  const change: RouteChange = {};
  const given = (field: keyof RouteChange) => item[field] !== undefined;
  if (given('pattern')) change.pattern = checkPattern(item.pattern, `${at}.pattern`);
  if (given('layouts')) change.layouts = texts(item.layouts, `${at}.layouts`);
  if (given('page')) change.page = text(item.page, `${at}.page`);
  if (given('rendering')) change.rendering = oneOf(item.rendering, RENDERINGS, `${at}.rendering`);
  if (given('document')) change.document = checkDocument(item.document, `${at}.document`);
  if (given('content')) change.content = each(item.content, `${at}.content`, checkContent);
  if (given('data')) change.data = each(item.data, `${at}.data`, checkData);
  if (given('parts')) change.parts = withOneIdEach(each(item.parts, `${at}.parts`, checkPart), `${at}.parts`);
  if (given('links')) change.links = texts(item.links, `${at}.links`);
  if (given('landings')) change.landings = amount(item.landings, `${at}.landings`);
  return change;
}

/** An address pattern: begins with a slash, holds no spaces, query or fragment. */
export function checkPattern(value: unknown, at: string): string {
  const pattern = text(value, at);
  if (/^\/[^\s?#]*$/.test(pattern)) return pattern;
  throw new InputError(
    'Not an address pattern',
    `${JSON.stringify(pattern)} must begin with / and hold no spaces, ? or #, as in /trips/:id.`,
    at,
  );
}

function withOneIdEach(parts: Part[], at: string): Part[] {
  const seen = new Set<string>();
  parts.forEach(({ id }, i) => {
    if (seen.has(id))
      throw new InputError('Two parts with one name', `Rename one of those called ${id}.`, `${at}[${i}].id`);
    seen.add(id);
  });
  return parts;
}

function checkDocument(value: unknown, at: string): Route['document'] {
  const item = object(value, at);
  return { bytes: bytesOf(item.bytes, `${at}.bytes`), serverMs: millisOf(item.serverMs, `${at}.serverMs`) };
}

/** Checks a part of a route that came from outside; throws InputError naming the field. */
export function checkPart(value: unknown, at: string): Part {
  const item = object(value, at);
  const evidence = checkEvidence(item.evidence, `${at}.evidence`);
  const condition = item.condition === undefined ? undefined : checkCondition(item.condition, `${at}.condition`);
  return {
    id: text(item.id, `${at}.id`),
    name: text(item.name, `${at}.name`),
    module: text(item.module, `${at}.module`),
    place: oneOf(item.place, PART_PLACES, `${at}.place`),
    ...(item.action === undefined ? {} : { action: text(item.action, `${at}.action`) }),
    ...(condition ? { condition } : {}),
    interactive: item.interactive === undefined ? true : flag(item.interactive, `${at}.interactive`),
    share: item.share === undefined ? 1 : amount(item.share, `${at}.share`, 1),
    needs: item.needs === undefined ? [] : texts(item.needs, `${at}.needs`),
    ...(item.submit === undefined ? {} : { submit: checkSubmit(item.submit, `${at}.submit`) }),
    ...(evidence ? { evidence } : {}),
  };
}

function checkSubmit(value: unknown, at: string): Submit {
  const item = object(value, at);
  return {
    serverMs: item.serverMs === undefined ? DEFAULT_SERVER_MS : millisOf(item.serverMs, `${at}.serverMs`),
    bytes: item.bytes === undefined ? 0 : bytesOf(item.bytes, `${at}.bytes`),
    redirects: item.redirects === undefined ? 0 : amount(item.redirects, `${at}.redirects`, 20),
  };
}

function checkCondition(value: unknown, at: string): PartCondition {
  const item = object(value, at);
  const kind = oneOf(item.kind, ['media', 'answer', 'segment', 'one of'] as const, `${at}.kind`);
  const width = (name: string): Fields =>
    item[name] === undefined ? {} : { [name]: amount(item[name], `${at}.${name}`, 100_000) };
  switch (kind) {
    case 'media':
      return { kind, ...width('minWidth'), ...width('maxWidth') };
    case 'answer':
      return { kind, of: text(item.of, `${at}.of`) };
    case 'segment':
      return { kind, segment: text(item.segment, `${at}.segment`) };
    case 'one of':
      return { kind, group: text(item.group, `${at}.group`) };
  }
}

/** Checks an image or the like that came from outside; throws InputError naming the field. */
export function checkContent(value: unknown, at: string): ContentItem {
  const item = object(value, at);
  return {
    id: text(item.id, `${at}.id`),
    kind: oneOf(item.kind ?? 'image', ['image'] as const, `${at}.kind`),
    address: text(item.address, `${at}.address`),
    bytes: bytesOf(item.bytes, `${at}.bytes`),
    serverMs: item.serverMs === undefined ? DEFAULT_SERVER_MS : millisOf(item.serverMs, `${at}.serverMs`),
    foundIn:
      item.foundIn === 'document'
        ? 'document'
        : { module: text(object(item.foundIn, `${at}.foundIn`).module, `${at}.foundIn.module`) },
    place: oneOf(item.place ?? 'first screen', ['first screen', 'below'] as const, `${at}.place`),
    lazy: item.lazy === undefined ? false : flag(item.lazy, `${at}.lazy`),
  };
}

/** Checks a data call that came from outside; throws InputError naming the field. */
export function checkData(value: unknown, at: string): DataCall {
  const item = object(value, at);
  return {
    id: text(item.id, `${at}.id`),
    address: text(item.address, `${at}.address`),
    bytes: bytesOf(item.bytes, `${at}.bytes`),
    serverMs: millisOf(item.serverMs, `${at}.serverMs`),
    module: text(item.module, `${at}.module`),
  };
}

/** What a person said of a classic script. */
export type ScriptChange = Partial<Pick<ClassicScript, 'bytes' | 'serverMs' | 'evaluationMs' | 'address'>>;

/** Checks what was said of a classic script; throws InputError naming the field. */
export function checkScriptChange(value: unknown, at: string): ScriptChange {
  const item = object(value, at);
  return {
    ...(item.bytes === undefined ? {} : { bytes: bytesOf(item.bytes, `${at}.bytes`) }),
    ...(item.serverMs === undefined ? {} : { serverMs: millisOf(item.serverMs, `${at}.serverMs`) }),
    ...(item.evaluationMs === undefined ? {} : { evaluationMs: millisOf(item.evaluationMs, `${at}.evaluationMs`) }),
    ...(item.address === undefined ? {} : { address: text(item.address, `${at}.address`) }),
  };
}

/** Checks the classic scripts of a snapshot. */
export function checkScripts(value: unknown, at: string): ClassicScript[] {
  return list(value, at).map((s, i): ClassicScript => {
    const where = `${at}[${i}]`;
    const item = object(s, where);
    return {
      id: text(item.id, `${where}.id`),
      name: text(item.name, `${where}.name`),
      address: text(item.address, `${where}.address`),
      bytes: item.bytes === null ? null : bytesOf(item.bytes, `${where}.bytes`),
      serverMs: millisOf(item.serverMs, `${where}.serverMs`),
      evaluationMs: millisOf(item.evaluationMs, `${where}.evaluationMs`),
      placement: oneOf(item.placement, SCRIPT_PLACEMENTS, `${where}.placement`),
      evidence: checkEvidence(item.evidence, `${where}.evidence`),
    };
  });
}

/** Checks where something was found, as it came from outside; throws InputError naming the field. */
export function checkEvidence(value: unknown, at: string): Evidence | null {
  if (value === null || value === undefined) return null;
  const item = object(value, at);
  return { path: text(item.path, `${at}.path`), line: amount(item.line, `${at}.line`) };
}

function texts(value: unknown, at: string): string[] {
  return list(value, at).map((t, i) => text(t, `${at}[${i}]`));
}
