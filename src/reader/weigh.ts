import zlib from 'node:zlib';
import { transform as transformStyle } from 'lightningcss';
import { minifySync } from 'oxc-minify';
import type { ModuleBytes } from '../core/snapshot/module-types.ts';

const WINDOW = 32 * 1024;
/** Fast levels: a reading weighs thousands of modules. Exact sizes are made on demand. */
const GZIP_LEVEL = 6;
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

/** Minifies a style sheet and lists what it imports, with lines. Throws on broken style text, with its line. */
export function minifyStyle(path: string, text: string): { code: string; imports: StyleLink[]; urls: StyleLink[] } {
  const { code, dependencies } = transformStyle({
    filename: path,
    code: Buffer.from(text),
    minify: true,
    analyzeDependencies: { preserveImports: true },
    errorRecovery: false,
  });
  const links = (kind: 'import' | 'url') =>
    (dependencies ?? []).flatMap((d) => (d.type === kind ? [{ specifier: d.url, line: d.loc.start.line }] : []));
  const small = Buffer.from(code).toString('utf8');
  return { code: withoutImports(small), imports: links('import'), urls: links('url') };
}

/** Sizes of one text alone. */
export function weigh(sourceBytes: number, minified: string): Omit<ModuleBytes, 'marginal'> {
  const bytes = Buffer.from(minified);
  return {
    source: sourceBytes,
    minified: bytes.length,
    gzip: zlib.gzipSync(bytes, { level: GZIP_LEVEL }).length,
    brotli: brotli(bytes, BROTLI_QUALITY),
  };
}

/**
 * What each text adds to a gzip stream when it follows the ones before it in the list: the compressor is given their
 * last 32 kB to refer to, as it would have them in one file.
 */
export function marginalSizes(texts: readonly string[]): number[] {
  let before = Buffer.alloc(0);
  return texts.map((text) => {
    const bytes = Buffer.from(text);
    const options = before.length > 0 ? { level: GZIP_LEVEL, dictionary: before } : { level: GZIP_LEVEL };
    const { length } = zlib.deflateRawSync(bytes, options);
    before = Buffer.concat([before, bytes]).subarray(-WINDOW);
    return length;
  });
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
