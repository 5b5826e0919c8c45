import type { Reading } from '../metrics/readout.ts';
import type { RequestRecord, Timeline } from '../sim/types.ts';

const MIME: Record<RequestRecord['type'], string> = {
  document: 'text/html',
  script: 'text/javascript',
  style: 'text/css',
  image: 'image/*',
  font: 'font/woff2',
  fetch: 'application/json',
};

/** What a prediction is written down with: the site that its addresses belong to, its title and its instant zero. */
export interface HarFrame {
  /** Such as `https://app.example`. */
  origin: string;
  title: string;
  /** ISO 8601; the instant at which the navigation begins. */
  startedAt: string;
  /** Version of this program. */
  version: string;
  httpVersion: 'HTTP/1.1' | 'h2' | 'h3';
}

/**
 * A predicted landing as an HTTP Archive (HAR 1.2): one page with its milestones as page timings (those without a
 * standard name begin with `_`), one entry per request. Times in ms.
 */
export function writeHar(timeline: Timeline, { milestones }: Reading, frame: HarFrame): object {
  const { origin, title, startedAt, version, httpVersion } = frame;
  const zero = Date.parse(startedAt);
  const at = (ms: number) => new Date(zero + ms).toISOString();
  const known = (ms: number) => (Number.isFinite(ms) ? round(ms) : -1);
  return {
    log: {
      version: '1.2',
      creator: { name: 'Yokeline', version, comment: 'predicted, not recorded' },
      pages: [
        {
          startedDateTime: at(0),
          id: 'landing',
          title,
          pageTimings: {
            onContentLoad: known(timeline.moments.domContentLoaded),
            onLoad: known(timeline.moments.load),
            _firstContent: known(milestones.firstContent),
            _largestContent: known(milestones.largestContent),
            _firstScreenComplete: known(milestones.firstScreenComplete),
            _interactive: known(milestones.interactive),
            _timeToInteractive: known(milestones.timeToInteractive),
          },
        },
      ],
      entries: timeline.requests
        .filter((r) => Number.isFinite(r.end))
        .sort((a, b) => a.discovered - b.discovered)
        .map((r) => entryOf(r, { at, origin, httpVersion })),
    },
  };
}

function entryOf(
  r: RequestRecord,
  { at, origin, httpVersion }: { at: (ms: number) => string; origin: string; httpVersion: string },
): object {
  const message = { httpVersion, cookies: [], headers: [], headersSize: -1 };
  const cached = r.fromCache === true;
  // HAR 1.2 writes −1 for a size that isn't known.
  const bytes = r.unknownSize ? -1 : Math.round(r.bytes);
  return {
    pageref: 'landing',
    startedDateTime: at(r.discovered),
    time: round(r.end - r.discovered),
    request: {
      method: 'GET',
      url: /^https?:/.test(r.address) ? r.address : `${origin}${r.address}`,
      ...message,
      queryString: [],
      bodySize: 0,
    },
    response: {
      status: 200,
      statusText: 'OK',
      ...message,
      content: { size: bytes, mimeType: MIME[r.type] },
      redirectURL: '',
      bodySize: bytes,
      _role: r.role,
      _hop: r.hop,
    },
    cache: cached ? { beforeRequest: { lastAccess: at(0), eTag: '', hitCount: 1 } } : {},
    timings: {
      blocked: round(r.sent - r.discovered),
      dns: -1,
      connect: -1,
      ssl: -1,
      send: 0,
      wait: round(r.firstByte - r.sent),
      receive: round(r.end - r.firstByte),
    },
    connection: String(r.connection),
    comment: r.cause.what,
  };
}

function round(ms: number): number {
  return Math.round(ms * 1000) / 1000;
}
