import { InputError } from '../errors.ts';
import { amount, bytesOf, each, flag, object, oneOf, text } from '../text/fields.ts';
import { checkEvidence } from './check-routes.ts';
import {
  type BuiltFile,
  type BuiltOutput,
  type BuiltStart,
  type DocumentLink,
  NOTICE_KINDS,
  type Notice,
  type SheetUse,
  type StyleRule,
} from './types.ts';

/** Checks the real files of an output; throws InputError naming the field. */
export function checkOutput(value: unknown, modules: number, at: string): BuiltOutput {
  const item = object(value, at);
  const files = each(item.files, `${at}.files`, (f, where) => checkFile(f, modules, where));
  files.forEach((file, i) => {
    for (const { to } of file.imports) within(to, files.length, 'files', `${at}.files[${i}].imports`);
  });
  return { files, starts: each(item.starts, `${at}.starts`, (s, where) => checkStart(s, files.length, where)) };
}

function checkFile(value: unknown, modules: number, at: string): BuiltFile {
  const item = object(value, at);
  const bytes = object(item.bytes, `${at}.bytes`);
  return {
    path: text(item.path, `${at}.path`),
    kind: oneOf(item.kind, ['script', 'style'] as const, `${at}.kind`),
    bytes: {
      minified: bytesOf(bytes.minified, `${at}.bytes.minified`),
      gzip: bytesOf(bytes.gzip, `${at}.bytes.gzip`),
      brotli: bytesOf(bytes.brotli, `${at}.bytes.brotli`),
    },
    inside: oneOf(item.inside, ['sources', 'names', 'none'] as const, `${at}.inside`),
    modules: each(item.modules, `${at}.modules`, (m, where) => {
      const own = object(m, where);
      const module = within(own.module, modules, 'modules', `${where}.module`);
      return { module, bytes: bytesOf(own.bytes, `${where}.bytes`) };
    }),
    contents: each(item.contents, `${at}.contents`, (c, where) => {
      const own = object(c, where);
      return { source: text(own.source, `${where}.source`), bytes: bytesOf(own.bytes, `${where}.bytes`) };
    }),
    imports: each(item.imports, `${at}.imports`, (x, where) => {
      const own = object(x, where);
      return {
        to: amount(own.to, `${where}.to`),
        kind: oneOf(own.kind, ['static', 'dynamic'] as const, `${where}.kind`),
        line: amount(own.line, `${where}.line`),
      };
    }),
  };
}

function checkStart(value: unknown, files: number, at: string): BuiltStart {
  const item = object(value, at);
  return {
    realm: text(item.realm, `${at}.realm`),
    tags: each(item.tags, `${at}.tags`, (t, where) => {
      const tag = object(t, where);
      return {
        file: within(tag.file, files, 'files', `${where}.file`),
        placement: oneOf(
          tag.placement,
          ['blocking', 'async', 'defer', 'module', 'style'] as const,
          `${where}.placement`,
        ),
        offset: amount(tag.offset, `${where}.offset`),
      };
    }),
  };
}

/** Checks a link of a document that came from outside; throws InputError naming the field. */
export function checkLink(value: unknown, at: string): DocumentLink {
  const item = object(value, at);
  return {
    realm: text(item.realm, `${at}.realm`),
    rel: oneOf(item.rel, ['preload', 'modulepreload', 'prefetch', 'preconnect'] as const, `${at}.rel`),
    address: text(item.address, `${at}.address`),
    as: text(item.as, `${at}.as`),
    crossorigin: flag(item.crossorigin, `${at}.crossorigin`),
    priority: oneOf(item.priority, ['high', 'low', 'auto'] as const, `${at}.priority`),
    bytes: item.bytes === null ? null : bytesOf(item.bytes, `${at}.bytes`),
    evidence: checkEvidence(item.evidence, `${at}.evidence`) ?? { path: '', line: 1 },
  };
}

/** Checks a notice that came from outside; throws InputError naming the field. */
export function checkNotice(value: unknown, at: string): Notice {
  const item = object(value, at);
  return {
    kind: oneOf(item.kind, NOTICE_KINDS, `${at}.kind`),
    path: text(item.path, `${at}.path`),
    message: text(item.message, `${at}.message`),
  };
}

/** Checks an unused style rule that came from outside; throws InputError naming the field. */
export function checkRule(value: unknown, at: string): StyleRule {
  const item = object(value, at);
  return {
    module: text(item.module, `${at}.module`),
    line: amount(item.line, `${at}.line`),
    selector: text(item.selector, `${at}.selector`),
    bytes: bytesOf(item.bytes, `${at}.bytes`),
    missing: each(item.missing, `${at}.missing`, text),
  };
}

/** Checks who uses a style sheet, as it came from outside; throws InputError naming the field. */
export function checkSheetUse(value: unknown, at: string): SheetUse {
  const item = object(value, at);
  return { module: text(item.module, `${at}.module`), by: each(item.by, `${at}.by`, text) };
}

function within(value: unknown, count: number, what: string, at: string): number {
  const n = amount(value, at);
  if (Number.isInteger(n) && n < count) return n;
  throw new InputError('A number of nothing', `${at} is ${n}, but there are ${count} ${what} (numbered from 0).`, at);
}
