import { readHar } from './read-har.ts';

const at = (ms: number) => new Date(Date.UTC(2026, 0, 1) + ms).toISOString();
const entry = (url: string, start: number, time: number, more: object = {}) => ({
  request: { url },
  startedDateTime: at(start),
  time,
  ...more,
});
const har = (entries: object[], pages: object[] = []) => ({ log: { entries, pages } });

describe('an HTTP Archive', () => {
  it('gives requests by when they began, in ms from the first, with the phases that it tells', () => {
    const timings = { blocked: 10, dns: 5, connect: 20, send: 2, wait: 30, receive: 33 };
    const { requests, title } = readHar(
      har([entry('/b.js', 150, 50), entry('/', 100, 100, { timings, response: { _transferSize: 700 } })]),
      'a.har',
    );
    expect(title).toBe('/b.js');
    expect(requests).toEqual([
      { address: '/', discovered: 0, sent: 35, firstByte: 67, end: 100, bytes: 700 },
      { address: '/b.js', discovered: 50, sent: 50, firstByte: 50, end: 100, bytes: 0 },
    ]);
  });

  it('names queries by what was sent with them', () => {
    const sent = (text: unknown) => ({ request: { url: '/q', postData: { text } } });
    const { requests } = readHar(
      har([
        entry('/q', 0, 1, sent('{"operationName":"Tides","query":"query Tides { a }"}')),
        entry('/q', 1, 1, sent('{"query":"query Havens($a: Int) { a }"}')),
        entry('/q', 2, 1, sent('a=1')),
        entry('/q', 3, 1, sent(7)),
      ]),
      'a.har',
    );
    expect(requests.map((r) => r.address)).toEqual(['/q#Tides', '/q#Havens', '/q', '/q']);
  });

  it('never tells a phase after the end, and takes −1 for what doesn’t apply', () => {
    const timings = { blocked: -1, dns: -1, connect: 500, send: 1, wait: 1 };
    const [only] = readHar(har([entry('/', 0, 40, { timings })]), 'a.har').requests;
    expect(only).toMatchObject({ sent: 40, firstByte: 40, end: 40 });
  });

  it('takes the first page alone where pages are named, with its title and milestones', () => {
    const page = { id: 'p1', title: 'Quay', startedDateTime: at(90), pageTimings: { onContentLoad: 300, onLoad: -1 } };
    const entries = [
      entry('/', 100, 10, { pageref: 'p1' }),
      entry('/other', 50, 10, { pageref: 'p2' }),
      entry('/shared', 120, 10),
    ];
    const found = readHar(har(entries, [page, { id: 'p2' }]), 'a.har');
    expect(found.requests.map((r) => [r.address, r.discovered])).toEqual([
      ['/', 10],
      ['/shared', 30],
    ]);
    expect(found).toMatchObject({ title: 'Quay', contentLoaded: 300, load: null });
    expect(readHar(har(entries, [page]), 'a.har').title).toBe('Quay');
    expect(readHar(har(entries, [{ id: 'p2' }]), 'a.har').requests.map((r) => r.address)).toEqual([
      '/other',
      '/shared',
    ]);
  });

  it.each<[object, number]>([
    [{ _transferSize: 5, bodySize: 6, content: { size: 7 } }, 5],
    [{ _transferSize: -1, bodySize: 6, content: { size: 7 } }, 6],
    [{ bodySize: -1, content: { size: 7 } }, 7],
    [{ content: null }, 0],
  ])('tells the bytes that travelled as well as it says them: %j', (response, bytes) => {
    expect(readHar(har([entry('/', 0, 1, { response })]), 'a.har').requests[0].bytes).toBe(bytes);
  });

  it('leaves out entries without times, and says which', () => {
    const found = readHar(har([entry('/', 0, 1), entry('/x', 0, -1), { request: { url: '/y' }, time: 3 }]), 'a.har');
    expect(found.requests).toHaveLength(1);
    expect(found.leftOut).toEqual([
      'log.entries[1]: /x has no start or no time',
      'log.entries[2]: /y has no start or no time',
    ]);
  });

  it('takes what isn’t an object for a part that says nothing, and answers without waiting at once', () => {
    const odd = [entry('/', 0, 10, { timings: null, response: 'none' }), entry('/a', 0, 0, { timings: { wait: 0 } })];
    expect(readHar(har(odd), 'a.har').requests).toMatchObject([
      { address: '/', sent: 0, firstByte: 0, end: 10, bytes: 0 },
      { address: '/a', sent: 0, firstByte: 0, end: 0 },
    ]);
    expect(readHar({ log: { entries: odd, pages: [{ id: 'p', pageTimings: null }] } }, 'a.har').load).toBeNull();
  });

  it('refuses what is none, holds nothing, or holds a whole day', () => {
    expect(() => readHar({}, 'a.har')).toThrow('no "log"');
    expect(() => readHar({ log: null }, 'a.har')).toThrow('no "log"');
    expect(() => readHar(har([]), 'a.har')).toThrow('No entry');
    const day = Array.from({ length: 10_001 }, () => entry('/', 0, 1));
    expect(() => readHar(har(day), 'a.har')).toThrow('10001 entries');
    expect(readHar(har(day.slice(1)), 'a.har').requests).toHaveLength(10_000);
  });
});
