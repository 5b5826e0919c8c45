import type { Notice } from '../../core/snapshot/types.ts';
import type { OutputFile } from './output-files.ts';

const SMALL = 4000;
/** Minified code has about a twentieth of white space; written code a quarter. */
const WHITE = 0.16;
const LONGEST_LINE = 240;
const WORTH_COMPRESSING = 1000;

/** What about an output a developer should know before looking at its sizes. */
export function noticesOf(files: OutputFile[], all: ReadonlySet<string>): Notice[] {
  return [...files.flatMap(aboutFile), ...compression(files, all)];
}

function aboutFile(file: OutputFile): Notice[] {
  const notices: Notice[] = [];
  const add = (kind: Notice['kind'], message: string) => notices.push({ kind, path: file.path, message });
  const sign = developmentSign(file);
  if (sign)
    add(
      'development',
      `looks like a development build: ${sign}. Sizes and speculative loading differ; read a production build.`,
    );
  else if (isUnminified(file)) add('unminified', 'is not minified: names and white space are as written');
  if (file.inlineMapBytes > 0) {
    const share = Math.round((100 * file.inlineMapBytes) / file.bytes.minified);
    add('inline map', `carries its source map inside, ${share} % of what travels; write maps beside the files`);
  }
  return notices;
}

function developmentSign({ kind, text }: OutputFile): string | null {
  if (kind === 'style') return null;
  if (/\beval\(/.test(text) && /\/\/# sourceURL=/.test(text)) return 'its modules are wrapped in eval';
  if (/\bjsxDEV\b/.test(text)) return 'it draws with the development functions';
  if (/\b(import\.meta|module)\.hot\b/.test(text)) return 'it holds code for replacing modules while they run';
  return null;
}

function isUnminified({ text }: OutputFile): boolean {
  const code = text.slice(0, 200_000);
  if (code.length < SMALL) return false;
  const white = code.match(/\s/g)?.length ?? 0;
  const lines = code.split('\n').length;
  return white / code.length > WHITE && code.length / lines < LONGEST_LINE;
}

/** Whether files would travel compressed can't be seen in a folder, unless some are compressed ahead and others not. */
function compression(files: OutputFile[], all: ReadonlySet<string>): Notice[] {
  const ahead = (f: OutputFile) => all.has(`${f.path}.gz`) || all.has(`${f.path}.br`);
  const large = files.filter((f) => f.bytes.minified >= WORTH_COMPRESSING);
  const without = large.filter((f) => !ahead(f));
  if (large.length === 0 || without.length === 0) return [];
  if (without.length === large.length) {
    const message = `none of the ${large.length} files is compressed ahead; the sizes hold only if the server compresses as it sends`;
    return [{ kind: 'uncompressed', path: '', message }];
  }
  return without.map((f) => ({
    kind: 'uncompressed',
    path: f.path,
    message: 'is not compressed ahead though others are; a server that only sends such files sends it uncompressed',
  }));
}
