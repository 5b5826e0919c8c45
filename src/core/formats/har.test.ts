import { file, page, ROUND, requestRecord } from '../../test-support/programs.ts';
import { readTimeline } from '../metrics/readout.ts';
import { calibrate } from '../recordings/calibrate.ts';
import { layUnder } from '../recordings/match.ts';
import { readHar } from '../recordings/read-har.ts';
import { simulate } from '../sim/simulate.ts';
import type { RequestRecord } from '../sim/types.ts';
import { writeHar } from './har.ts';

const program = page(
  [
    { at: 100, tag: 'script', group: 0, mode: 'module' },
    { at: 200, tag: 'script', group: 1, mode: 'async' },
    { at: 900, tag: 'text', part: 0 },
  ],
  [file('/assets/app-3f9a2c.js', { bytes: 40_000, estimatedBytes: 120_000 }), file('/assets/late.js?v=2')],
  {
    parts: [
      {
        id: 'text',
        name: 'text',
        place: 'first screen',
        drawnBy: 'document',
        interactive: false,
        needs: [],
        after: [],
        fill: [],
        renderMs: 0,
        onItsOwn: true,
      },
    ],
  },
);
const timeline = simulate(program, ROUND);
const reading = readTimeline(program, timeline, ROUND);
const frame = {
  origin: 'https://ferries.example',
  title: '/timetable',
  startedAt: '2026-01-02T03:04:05.000Z',
  version: '0.1.0',
  httpVersion: 'h2' as const,
};
interface Har {
  log: {
    version: string;
    pages: { pageTimings: Record<string, number> }[];
    entries: { startedDateTime: string; time: number; request: { url: string }; timings: Record<string, number> }[];
  };
}
const har = writeHar(timeline, reading, frame) as Har;

describe('an HTTP Archive of a prediction', () => {
  it('has the milestones as page timings and phases that add up to each entry’s time', () => {
    expect(har.log.version).toBe('1.2');
    expect(har.log.pages[0].pageTimings.onLoad).toBeCloseTo(timeline.moments.load, 2);
    expect(har.log.pages[0].pageTimings._interactive).toBeCloseTo(reading.milestones.interactive, 2);
    expect(har.log.entries.map((e) => e.request.url)).toEqual([
      'https://ferries.example/',
      'https://ferries.example/assets/app-3f9a2c.js',
      'https://ferries.example/assets/late.js?v=2',
    ]);
    for (const { time, timings } of har.log.entries) {
      const phases = ['blocked', 'send', 'wait', 'receive'].reduce((sum, p) => sum + timings[p], 0);
      expect(phases).toBeCloseTo(time, 2);
    }
  });

  it('has one entry for each request that ends, in the order of discovery, with all that the form asks for', () => {
    const requests = [
      requestRecord(30.1234, 70.5, {
        discovered: 20,
        firstByte: 50.25,
        address: 'https://far.example/x.css',
        type: 'style',
        bytes: 99.6,
      }),
      requestRecord(10, 40, { fromCache: true, unknownSize: true }),
      requestRecord(5, Number.POSITIVE_INFINITY),
    ];
    const moments = { ...timeline.moments, load: Number.POSITIVE_INFINITY };
    const made = writeHar({ ...timeline, requests, moments }, reading, frame) as Har;
    const message = { httpVersion: 'h2', cookies: [], headers: [], headersSize: -1 };
    expect(made.log.pages[0].pageTimings.onLoad).toBe(-1);
    expect(made.log.entries).toEqual([
      expect.objectContaining({
        startedDateTime: '2026-01-02T03:04:05.010Z',
        time: 30,
        response: expect.objectContaining({ bodySize: -1, content: { size: -1, mimeType: expect.any(String) } }),
        cache: { beforeRequest: { lastAccess: '2026-01-02T03:04:05.000Z', eTag: '', hitCount: 1 } },
      }),
      expect.objectContaining({
        ...{ pageref: 'landing', startedDateTime: '2026-01-02T03:04:05.020Z', time: 50.5, cache: {} },
        request: { method: 'GET', url: 'https://far.example/x.css', ...message, queryString: [], bodySize: 0 },
        response: expect.objectContaining({
          ...message,
          status: 200,
          bodySize: 100,
          content: { size: 100, mimeType: 'text/css' },
        }),
        timings: { blocked: 10.123, dns: -1, connect: -1, ssl: -1, send: 0, wait: 20.127, receive: 20.25 },
      }),
    ]);
  });

  it('comes back as it was, and lies under the prediction without a difference', () => {
    const recording = readHar(JSON.parse(JSON.stringify(har)), 'x.har');
    const laid = layUnder(timeline, recording);
    expect(laid.extra).toEqual([]);
    expect(laid.missing).toEqual([]);
    // Instants in such files are whole milliseconds.
    timeline.requests.forEach((r, i) => {
      expect(Math.abs(laid.of[i]!.end - r.end)).toBeLessThan(2);
    });
    expect(laid.middleDifference).toBeLessThan(0.01);
  });

  it('is matched by path or by file name without its hash; what else was asked for is told', () => {
    const entry = (url: string, startMs: number, time: number) => ({
      startedDateTime: new Date(Date.parse(frame.startedAt) + startMs).toISOString(),
      time,
      request: { url },
      response: { bodySize: 1234 },
      timings: { blocked: 2, dns: -1, connect: -1, send: 0, wait: 30, receive: time - 32 },
    });
    const recording = readHar(
      {
        log: {
          entries: [
            entry('https://other.example/landing', 0, 300),
            entry('https://other.example/build/app-77aa01.js', 400, 200),
            entry('https://other.example/assets/late.js', 410, 90),
            entry('https://stats.example/hit', 900, 40),
          ],
        },
      },
      'x.har',
    );
    const laid = layUnder(timeline, recording);
    expect(laid.of.map((o) => o?.address.split('/').at(-1))).toEqual(['landing', 'app-77aa01.js', 'late.js']);
    expect(laid.extra.map((e) => e.address)).toEqual(['https://stats.example/hit']);
    expect(laid.of[1]).toMatchObject({ discovered: 400, sent: 402, firstByte: 432, end: 600, bytes: 1234 });
    expect(laid.load).toBeNull();
  });

  it.each([
    [{}, 'has no "log"'],
    [{ log: {} }, 'log.entries must be a list'],
    [{ log: { entries: [] } }, 'No entry of the archive'],
    [{ log: { entries: [7] } }, 'log.entries[0] must be an object'],
    [{ log: { entries: [{ request: {} }] } }, 'log.entries[0].request.url must be a text'],
    [{ log: { entries: new Array(10_001).fill({}) } }, 'at most 10000'],
    [{ log: { entries: [{ request: { url: 'x' }, startedDateTime: 'soon', time: 4 }] } }, 'No entry of the archive'],
  ])('that is broken is refused with the field (%#)', (value, words) => {
    expect(() => readHar(value, 'x.har')).toThrow(words);
  });
});

describe('an entry of the archive', () => {
  const entry = (more: Partial<RequestRecord>) => {
    const request = { ...requestRecord(120, 420, more), bytes: 5000.4 };
    const made = writeHar({ ...timeline, requests: [request] }, reading, frame) as { log: { entries: [Entry] } };
    return made.log.entries[0];
  };
  interface Entry {
    cache: object;
    response: { bodySize: number };
    timings: Record<string, number>;
  }

  it('tells what came from the cache, and −1 for what isn’t known or didn’t happen', () => {
    expect(entry({}).cache).toEqual({});
    expect(entry({ fromCache: true }).cache).toMatchObject({ beforeRequest: { hitCount: 1 } });
    expect(entry({}).response.bodySize).toBe(5000);
    expect(entry({ unknownSize: true }).response.bodySize).toBe(-1);
    expect(entry({}).timings).toMatchObject({ dns: -1, connect: -1, ssl: -1, send: 0 });
  });
});

describe('calibrating by a recorded load', () => {
  it('finds the rate with which it was predicted', () => {
    const rate = 0.0003;
    const slow = { ...ROUND, device: { ...ROUND.device, evaluationRate: rate } };
    const { load } = simulate(program, slow).moments;
    const found = calibrate(program, ROUND, load);
    expect(found.reached).toBe(true);
    expect(found.rate).toBeCloseTo(rate, 6);
    expect(found.load).toBeCloseTo(load, 1);
  });

  it('says so when no rate gets there', () => {
    expect(calibrate(program, ROUND, 60_000).reached).toBe(false);
    expect(calibrate(program, ROUND, 10)).toMatchObject({ reached: false, rate: 0 });
  });
});
