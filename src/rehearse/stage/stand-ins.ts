import type { Resource } from '../../core/load/types.ts';
import type { Answer } from '../serve/types.ts';

/** Something of the right kind and size for what isn’t there to be served. */
export function standInFor({ type, bytes, serverMs, cache, cpuMs }: Resource): Answer {
  const { text, media, filler } = STAND_INS[type];
  const begun = text(cpuMs);
  const missing = Math.max(0, Math.round(bytes) - Buffer.byteLength(begun));
  return { type: media, body: Buffer.from(begun + filler(missing)), cache, serverMs };
}

interface StandIn {
  media: string;
  /** `cpuMs`: what it costs to run, on the reference device. */
  text: (cpuMs: number) => string;
  /** So many bytes that mean nothing. */
  filler: (bytes: number) => string;
}

const comment = (open: string, close: string) => (bytes: number) => {
  const inside = bytes - open.length - close.length;
  return inside < 0 ? ' '.repeat(bytes) : `${open}${'-'.repeat(inside).replaceAll('--', '. ')}${close}`;
};

const STAND_INS: Record<Resource['type'], StandIn> = {
  script: {
    media: 'text/javascript',
    // The slowed thread takes as much longer as the device does.
    text: (cpuMs) => (cpuMs > 0 ? `for(let n=0,x=0;n<${Math.round(cpuMs * TURNS_PER_MS)};n++)x+=Math.sqrt(n);` : ''),
    filler: comment('/*', '*/'),
  },
  style: { media: 'text/css', text: () => '', filler: comment('/*', '*/') },
  image: {
    media: 'image/svg+xml',
    text: () =>
      '<svg xmlns="http://www.w3.org/2000/svg" width="320" height="200"><rect width="320" height="200" fill="#bbb"/></svg>',
    filler: comment('<!--', '-->'),
  },
  font: { media: 'font/woff2', text: () => '', filler: (bytes) => ' '.repeat(bytes) },
  fetch: { media: 'application/json', text: () => '[]', filler: (bytes) => ' '.repeat(bytes) },
};

/** Turns of the loop that take a millisecond on the reference machine. */
const TURNS_PER_MS = 900_000;
