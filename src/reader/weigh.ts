import zlib from 'node:zlib';
import { transform as transformStyle } from 'lightningcss';
import { minifySync } from 'oxc-minify';
import type { ModuleBytes } from '../core/snapshot/module-types.ts';

import { remembered } from './memory/memory.ts';

/** Fast levels: a reading weighs thousands of modules. Exact sizes are made on demand. */
export const GZIP_LEVEL = 6;
const BROTLI_QUALITY = 5;

/** Minifies plain JavaScript; text that the minifier refuses stays as it is. */
export function minifyScript(path: string, code: string): string {
  return minified(path, code) ?? code;
}

const WRAPPED = 'export default function(exports,require,module){';

/** The same of a CommonJS module: builds put it into a function, in which all of its names can be shortened. */
export function minifyCommonJs(path: string, code: string): string {
  const small = minified(path, `${WRAPPED}${code}\n}`);
  return small === null ? minifyScript(path, code) : small.replace(/^export default /, '');
}

function minified(path: string, code: string): string | null {
  const { code: small, errors } = minifySync(path, code, { compress: true, mangle: true });
  return errors.some((e) => e.severity === 'Error') ? null : small;
}

export interface StyleLink {
  specifier: string;
  line: number;
}

/** Sheets whose class names are their own, by the name of their file (CSS modules: a convention that builds share). */
const HAS_OWN_NAMES = /\.module\.\w+$/;

/**
 * Minifies a style sheet and lists what it imports, with lines; a sheet with class names of its own ships these made unlike all others, and
 * imports those of which it composes its own. `path` is the file’s in the app, not on the disk: names are made of it, and the same app
 * ships the same text wherever it lies. Throws on broken style text, with its line.
 */
export function minifyStyle(path: string, text: string): SmallStyle {
  return remembered('sheet', [path, text], () => smallStyle(path, text));
}

interface SmallStyle {
  code: string;
  imports: StyleLink[];
  urls: StyleLink[];
}

function smallStyle(path: string, text: string): SmallStyle {
  const hasOwnNames = HAS_OWN_NAMES.test(path);
  const { code, dependencies, exports } = transformStyle({
    filename: path,
    code: Buffer.from(text),
    minify: true,
    analyzeDependencies: { preserveImports: true },
    errorRecovery: false,
    ...(hasOwnNames ? { cssModules: { pattern: '[local]_[hash]', pure: false } } : {}),
  });
  const composed = Object.values(exports ?? {}).flatMap(({ composes }) =>
    composes.flatMap((c) => (c.type === 'dependency' ? [c.specifier] : [])),
  );
  const links = (kind: 'import' | 'url') =>
    (dependencies ?? []).flatMap((d) => (d.type === kind ? [{ specifier: d.url, line: d.loc.start.line }] : []));
  const small = Buffer.from(code).toString('utf8');
  return {
    code: withoutImports(small),
    imports: [...links('import'), ...composedOf(text, composed)],
    urls: links('url'),
  };
}

/** The sheets of which names are composed, each with the line where it is named first. */
function composedOf(text: string, specifiers: readonly string[]): StyleLink[] {
  return [...new Set(specifiers)].map((specifier) => {
    const named = [`"${specifier}"`, `'${specifier}'`].map((q) => text.indexOf(q)).filter((at) => at >= 0);
    return { specifier, line: text.slice(0, Math.min(...named, text.length)).split('\n').length };
  });
}

/** Sizes of one text alone. */
export function weigh(minified: string): Omit<ModuleBytes, 'marginal' | 'source'> {
  const bytes = Buffer.from(minified);
  return {
    minified: bytes.length,
    gzip: zlib.gzipSync(bytes, { level: GZIP_LEVEL }).length,
    brotli: brotli(bytes, BROTLI_QUALITY),
  };
}

/** Exact sizes of a file made of these texts, at the levels that servers use for files compressed ahead. */
export function exactSizes(texts: readonly string[]): { minified: number; gzip: number; brotli: number } {
  const bytes = Buffer.from(texts.join('\n'));
  return { minified: bytes.length, gzip: zlib.gzipSync(bytes, { level: GZIP_LEVEL }).length, brotli: brotli(bytes, 9) };
}

function brotli(bytes: Buffer, quality: number): number {
  const params = {
    [zlib.constants.BROTLI_PARAM_QUALITY]: quality,
    [zlib.constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
  };
  return zlib.brotliCompressSync(bytes, { params }).length;
}

/** Minified style without the imports at its beginning, which become links of their own. */
function withoutImports(code: string): string {
  let kept = '';
  for (let at = 0; ; ) {
    const begin = code.indexOf('@import', at);
    const end = begin < 0 ? -1 : code.indexOf(';', begin);
    if (end < 0) return kept + code.slice(at);
    kept += code.slice(at, begin);
    at = end + 1;
  }
}
