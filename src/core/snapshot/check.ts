import { InputError } from '../errors.ts';
import { amount, bytesOf, each, flag, list, millisOf, object, oneOf, text } from '../text/fields.ts';
import { checkBase } from './base.ts';
import { checkLink, checkNotice, checkOutput, checkRule, checkSheetUse } from './check-output.ts';
import { checkRoutes, checkScripts } from './check-routes.ts';
import { checkVisitorNotes } from './check-visitors.ts';
import {
  DEFERRED_CONTEXTS,
  type Entry,
  type Failed,
  type Import,
  MODULE_KINDS,
  type Module,
  type Package,
  type Snapshot,
  type Unresolved,
} from './types.ts';

/** Checks a snapshot that came from outside, in one pass over its columns; throws InputError naming the field. */
export function checkSnapshot(value: unknown, at: string): Snapshot {
  const item = object(value, at);
  const modules = list(item.modules, `${at}.modules`).map((m, i) => checkModule(m, `${at}.modules[${i}]`));
  const seen = new Set<string>();
  modules.forEach((m, i) => {
    if (seen.has(m.path))
      throw new InputError('Module twice', `${m.path} is listed more than once.`, `${at}.modules[${i}].path`);
    seen.add(m.path);
  });
  const imports = list(item.imports, `${at}.imports`).map((x, i) =>
    checkImport(x, modules.length, `${at}.imports[${i}]`),
  );
  return {
    name: text(item.name, `${at}.name`),
    origin: oneOf(item.origin, ['source', 'output'] as const, `${at}.origin`),
    modules,
    imports,
    packages: list(item.packages, `${at}.packages`).map((p, i) => checkPackage(p, `${at}.packages[${i}]`)),
    entries: list(item.entries, `${at}.entries`).map((e, i) => checkEntry(e, seen, `${at}.entries[${i}]`)),
    routes: checkRoutes(item.routes, `${at}.routes`),
    scripts: checkScripts(item.scripts, `${at}.scripts`),
    links: each(item.links ?? [], `${at}.links`, checkLink),
    base: item.base === undefined ? '/' : checkBase(item.base, `${at}.base`),
    unresolved: list(item.unresolved, `${at}.unresolved`).map((u, i) => checkUnresolved(u, `${at}.unresolved[${i}]`)),
    failed: list(item.failed, `${at}.failed`).map((f, i) => checkFailed(f, `${at}.failed[${i}]`)),
    notices: each(item.notices ?? [], `${at}.notices`, checkNotice),
    unusedRules: each(item.unusedRules ?? [], `${at}.unusedRules`, checkRule),
    sheetUses: each(item.sheetUses ?? [], `${at}.sheetUses`, checkSheetUse),
    ...(item.visitors === undefined ? {} : { visitors: checkVisitorNotes(item.visitors, `${at}.visitors`) }),
    output: item.output == null ? null : checkOutput(item.output, modules.length, `${at}.output`),
  };
}

function checkModule(value: unknown, at: string): Module {
  const item = object(value, at);
  const bytes = object(item.bytes, `${at}.bytes`);
  const size = (name: string) => bytesOf(bytes[name], `${at}.bytes.${name}`);
  return {
    path: text(item.path, `${at}.path`),
    kind: oneOf(item.kind, MODULE_KINDS, `${at}.kind`),
    package: item.package === null ? null : text(item.package, `${at}.package`),
    bytes: {
      source: size('source'),
      minified: size('minified'),
      gzip: size('gzip'),
      brotli: size('brotli'),
      marginal: size('marginal'),
    },
    sideEffects: flag(item.sideEffects, `${at}.sideEffects`),
    ...(item.evaluationMs === undefined ? {} : { evaluationMs: millisOf(item.evaluationMs, `${at}.evaluationMs`) }),
    ...(item.fileBytes === undefined ? {} : { fileBytes: bytesOf(item.fileBytes, `${at}.fileBytes`) }),
  };
}

function checkImport(value: unknown, modules: number, at: string): Import {
  const item = object(value, at);
  const module = (name: 'from' | 'to') => {
    const m = amount(item[name], `${at}.${name}`);
    if (!Number.isInteger(m) || m >= modules) {
      throw new InputError(
        'Import of nothing',
        `${at}.${name} is ${m}, but there are ${modules} modules (numbered from 0).`,
        `${at}.${name}`,
      );
    }
    return m;
  };
  const kind = oneOf(item.kind, ['static', 'dynamic'] as const, `${at}.kind`);
  return {
    from: module('from'),
    to: module('to'),
    kind,
    specifier: text(item.specifier, `${at}.specifier`),
    ordinal: amount(item.ordinal, `${at}.ordinal`),
    line: amount(item.line, `${at}.line`),
    column: amount(item.column, `${at}.column`),
    start: amount(item.start, `${at}.start`),
    end: amount(item.end, `${at}.end`),
    names: list(item.names, `${at}.names`).map((n, i) => text(n, `${at}.names[${i}]`)),
    ...(item.context === undefined ? {} : { context: oneOf(item.context, DEFERRED_CONTEXTS, `${at}.context`) }),
    ...(item.awaited === undefined ? {} : { awaited: true as const }),
    ...(item.sync === undefined ? {} : { sync: checkSync(item.sync, `${at}.sync`) }),
    ...(item.onActs === undefined ? {} : { onActs: true as const }),
  };
}

function checkSync(value: unknown, at: string): NonNullable<Import['sync']> {
  const item = object(value, at);
  return { reason: text(item.reason, `${at}.reason`), line: amount(item.line, `${at}.line`) };
}

function checkPackage(value: unknown, at: string): Package {
  const item = object(value, at);
  return {
    name: text(item.name, `${at}.name`),
    version: item.version === null ? null : text(item.version, `${at}.version`),
    folder: text(item.folder, `${at}.folder`),
  };
}

function checkEntry(value: unknown, paths: Set<string>, at: string): Entry {
  const item = object(value, at);
  const modules = list(item.modules, `${at}.modules`).map((m, i) => {
    const path = text(m, `${at}.modules[${i}]`);
    if (!paths.has(path))
      throw new InputError('Entry without a module', `There is no module ${path}.`, `${at}.modules[${i}]`);
    return path;
  });
  return {
    realm: text(item.realm, `${at}.realm`),
    kind: oneOf(item.kind, ['document', 'worker'] as const, `${at}.kind`),
    document: item.document === null ? null : text(item.document, `${at}.document`),
    modules,
  };
}

function checkUnresolved(value: unknown, at: string): Unresolved {
  const item = object(value, at);
  return {
    from: text(item.from, `${at}.from`),
    specifier: text(item.specifier, `${at}.specifier`),
    line: amount(item.line, `${at}.line`),
    reason: text(item.reason, `${at}.reason`),
    leftOut: item.leftOut === undefined ? false : flag(item.leftOut, `${at}.leftOut`),
  };
}

function checkFailed(value: unknown, at: string): Failed {
  const item = object(value, at);
  return {
    path: text(item.path, `${at}.path`),
    line: amount(item.line, `${at}.line`),
    message: text(item.message, `${at}.message`),
  };
}
