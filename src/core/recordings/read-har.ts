import { InputError } from '../errors.ts';
import { type Fields, list, object, text } from '../text/fields.ts';
import { operationOf, withOperation } from '../text/query-operation.ts';
import type { RecordedRequest, Recording } from './types.ts';

/** More requests than a page load has; a recording of a whole day is none. */
const MOST_REQUESTS = 10_000;

/**
 * Reads an HTTP Archive (HAR 1.2): the requests of its first page, or of all entries where no page is named. Entries
 * without a usable time are left out and told. Throws InputError naming the field where it is no such archive, or
 * holds nothing that could be laid under a prediction.
 */
export function readHar(value: unknown, fileName: string): Recording {
  const root = object(value, fileName);
  if (typeof root.log !== 'object' || root.log === null)
    throw new InputError('Not an HTTP Archive', 'The file has no "log". Export the recording as HAR 1.2.', fileName);
  const log = object(root.log, 'log');
  const entries = list(log.entries, 'log.entries');
  if (entries.length > MOST_REQUESTS)
    throw new InputError(
      'Too many requests',
      `The archive has ${entries.length} entries; record one page load (at most ${MOST_REQUESTS}).`,
      'log.entries',
    );
  const page = Array.isArray(log.pages) && log.pages.length > 0 ? object(log.pages[0], 'log.pages[0]') : null;
  const leftOut: string[] = [];
  const raw = entries.flatMap((item, i) => {
    const entry = object(item, `log.entries[${i}]`);
    if (page && entry.pageref !== undefined && entry.pageref !== page.id) return [];
    const read = readEntry(entry, `log.entries[${i}]`);
    if (typeof read !== 'string') return [read];
    leftOut.push(read);
    return [];
  });
  if (raw.length === 0)
    throw new InputError('Nothing recorded', 'No entry of the archive has an address and times.', 'log.entries');
  const zero = Math.min(...raw.map((r) => r.discovered), ...instantOf(page?.startedDateTime));
  const timings = page && typeof page.pageTimings === 'object' && page.pageTimings ? (page.pageTimings as Fields) : {};
  return {
    title: typeof page?.title === 'string' ? page.title : raw[0].address,
    requests: raw
      .map((r) => ({
        ...r,
        discovered: r.discovered - zero,
        sent: r.sent - zero,
        firstByte: r.firstByte - zero,
        end: r.end - zero,
      }))
      .sort((a, b) => a.discovered - b.discovered),
    contentLoaded: timeOf(timings.onContentLoad),
    load: timeOf(timings.onLoad),
    leftOut,
  };
}

/** One entry with times as instants; in words why it can't be used. */
function readEntry(entry: Fields, at: string): RecordedRequest | string {
  const request = object(entry.request, `${at}.request`);
  const address = text(request.url, `${at}.request.url`);
  const [start] = instantOf(entry.startedDateTime);
  const total = timeOf(entry.time);
  if (start === undefined || total === null) return `${at}: ${address} has no start or no time`;
  const timings = typeof entry.timings === 'object' && entry.timings !== null ? (entry.timings as Fields) : {};
  const phase = (name: string) => timeOf(timings[name]) ?? 0;
  const sent = start + phase('blocked') + phase('dns') + phase('connect');
  const end = Math.max(start, start + total);
  const firstByte = Math.min(end, sent + phase('send') + phase('wait'));
  const posted = request.postData;
  const sentText = typeof posted === 'object' && posted !== null ? (posted as Fields).text : null;
  const operation = operationOf(typeof sentText === 'string' ? sentText : null);
  return {
    address: withOperation(address, operation),
    discovered: start,
    sent: Math.min(sent, end),
    firstByte,
    end,
    bytes: bytesOf(entry),
  };
}

function bytesOf(entry: Fields): number {
  const response = typeof entry.response === 'object' && entry.response !== null ? (entry.response as Fields) : {};
  const content = typeof response.content === 'object' && response.content !== null ? (response.content as Fields) : {};
  const sizes = [response._transferSize, response.bodySize, content.size];
  return sizes.map(timeOf).find((n) => n !== null) ?? 0;
}

/** A number that isn't negative (−1 says “doesn't apply”); null for anything else. */
function timeOf(value: unknown): number | null {
  return typeof value === 'number' && Number.isFinite(value) && value >= 0 ? value : null;
}

function instantOf(value: unknown): number[] {
  const ms = typeof value === 'string' ? Date.parse(value) : Number.NaN;
  return Number.isFinite(ms) ? [ms] : [];
}
