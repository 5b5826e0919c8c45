import zlib from 'node:zlib';
import { GZIP_LEVEL } from '../../reader/weigh.ts';
import type { Answer } from '../serve/types.ts';

const NOT_SMALLER = /^(image\/(?!svg)|video|audio|font\/woff|application\/(pdf|octet))/;

/** As servers send it that compress ahead: by the way and level by which files are weighed. */
export function compressed(answer: Answer): Answer {
  if (NOT_SMALLER.test(answer.type)) return answer;
  return { ...answer, body: zlib.gzipSync(answer.body, { level: GZIP_LEVEL }), encoding: 'gzip' };
}

/** Ways to compress that get smaller and smaller; the last takes about a second for half a megabyte. */
const SMALLER: readonly { encoding: 'gzip' | 'br'; level: number }[] = [
  { encoding: 'gzip', level: GZIP_LEVEL },
  { encoding: 'gzip', level: 9 },
  ...[4, 5, 7, 9, 10, 11].map((level) => ({ encoding: 'br' as const, level })),
];

/**
 * Compressed so that it comes as near to so many bytes as a way to compress gets it. Browsers take Brotli over encrypted connections only
 * (`isSecure`).
 */
export function compressedTo(bytes: number, answer: Answer, isSecure: boolean): Answer {
  let best: Answer | null = null;
  for (const { encoding, level } of SMALLER) {
    if (encoding === 'br' && !isSecure) break;
    const body = encoding === 'br' ? brotli(answer.body, level) : zlib.gzipSync(answer.body, { level });
    if (best && Math.abs(body.length - bytes) >= Math.abs(best.body.length - bytes)) continue;
    best = { ...answer, body, encoding };
    if (body.length <= bytes) break;
  }
  return best!;
}

function brotli(body: Buffer, quality: number): Buffer {
  const params = {
    [zlib.constants.BROTLI_PARAM_QUALITY]: quality,
    [zlib.constants.BROTLI_PARAM_SIZE_HINT]: body.length,
  };
  return zlib.brotliCompressSync(body, { params });
}
