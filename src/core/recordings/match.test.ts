import { file, page, ROUND } from '../../test-support/programs.ts';
import type { MarkupItem } from '../load/types.ts';
import { simulate } from '../sim/simulate.ts';
import { layUnder } from './match.ts';
import type { RecordedRequest, Recording } from './types.ts';

const script = (at: number, group: number): MarkupItem => ({ at, tag: 'script', group, mode: 'module' });
const timeline = simulate(
  page(
    [script(100, 0), script(200, 1), script(300, 2)],
    ['/main-3f9a2c.js', '/a.js', '/b.js'].map((a) => file(a)),
  ),
  ROUND,
);
const recorded = (address: string, end: number): RecordedRequest => ({
  address,
  discovered: 0,
  sent: 0,
  firstByte: 0,
  end,
  bytes: 1000,
});
const recording = (requests: RecordedRequest[], load: number | null = null): Recording => ({
  title: 'made up',
  requests,
  contentLoaded: null,
  load,
  leftOut: [],
});
const ends = timeline.requests.map((r) => r.end);

describe('a recording under a prediction', () => {
  it('matches by address, by path without query, and by name without hash; the first one is the document', () => {
    const laid = layUnder(
      timeline,
      recording([
        recorded('https://app.example/', ends[0]),
        recorded('https://app.example/a.js?v=2', ends[2]),
        recorded('https://app.example/static/main-77ac01.js', ends[1]),
        recorded('https://app.example/other.js', 500),
      ]),
    );
    expect(laid.of.map((r) => r?.address ?? null)).toEqual([
      'https://app.example/',
      'https://app.example/static/main-77ac01.js',
      'https://app.example/a.js?v=2',
      null,
    ]);
    expect(laid.missing).toEqual([3]);
    expect(laid.extra.map((r) => r.address)).toEqual(['https://app.example/other.js']);
    expect(laid.middleDifference).toBe(0);
  });

  it('matches what builds call otherwise by kind and size, the likest first, and says so', () => {
    const own = simulate(
      page([script(100, 0), script(200, 1)], [file('/a.js', { bytes: 40_000 }), file('/b.js', { bytes: 41_000 })]),
      ROUND,
    );
    const named = (address: string, bytes: number) => ({ ...recorded(address, 500), bytes });
    const laid = layUnder(
      own,
      recording([
        recorded('/', 10),
        named('/q.css', 40_000),
        named('/x1.js', 41_300),
        named('/x2.js', 40_100),
        named('/x3.js', 90_000),
      ]),
    );
    expect(laid.of.map((r) => r?.address)).toEqual(['/', '/x2.js', '/x1.js']);
    expect(laid.bySize.sort()).toEqual([1, 2]);
    expect(laid.extra.map((r) => r.address)).toEqual(['/q.css', '/x3.js']);
  });

  it('goes by the size up to six in a hundred, with or without headers, and not for what is too small to tell', () => {
    const matched = (bytes: number, seen: number) => {
      const own = simulate(page([script(100, 0)], [file('/a.js', { bytes })]), ROUND);
      return layUnder(own, recording([recorded('/', 10), { ...recorded('/x1.js', 500), bytes: seen }])).bySize.length;
    };
    expect([10_600, 10_601, 9400, 9399].map((seen) => matched(10_000, seen))).toEqual([1, 1, 1, 0]);
    expect([10_900, 10_901].map((seen) => matched(10_000, seen))).toEqual([1, 0]);
    expect([1500, 1499].map((bytes) => matched(bytes, bytes))).toEqual([1, 0]);
  });

  it('matches an address with variables by what stands in their places', () => {
    const asked = simulate(
      page(
        [script(100, 0), script(200, 1)],
        ['/api/trips/:id/legs/:leg', '/api/trips/:id'].map((a) => file(a)),
      ),
      ROUND,
    );
    const there = [
      'https://app.example/',
      '/api/trips/7?all',
      '/api/trips/7/legs/2',
      '/api/trips/',
      '/api/trips/7/other/2',
    ];
    const laid = layUnder(asked, recording(there.map((a) => recorded(a, 100))));
    expect(laid.of.map((r) => r?.address)).toEqual([there[0], there[2], there[1]]);
    expect(laid.extra.map((r) => r.address)).toEqual(there.slice(3));
  });

  it('tells queries that go to one address by their names', () => {
    const asked = simulate(
      page(
        [script(100, 0), script(200, 1), script(300, 2)],
        ['/api/graphql#Tides', '/api/graphql#Havens', '/api/graphql#Marks'].map((a) => file(a)),
      ),
      ROUND,
    );
    const there = [
      'https://app.example/',
      ...['Havens', 'Tides', ''].map((n) => `https://app.example/api/graphql#${n}`),
    ];
    const laid = layUnder(asked, recording(there.map((a) => recorded(a.replace(/#$/, ''), 100))));
    // What says no name is whatever is left at that address.
    expect(laid.of.map((r) => r?.address)).toEqual([there[0], there[2], there[1], 'https://app.example/api/graphql']);
  });

  it('uses each recorded request once', () => {
    const laid = layUnder(timeline, recording([recorded('/', 10), recorded('/x/a.js', 20), recorded('/y/a.js', 30)]));
    expect(laid.of.filter((r) => r?.address.endsWith('a.js'))).toHaveLength(1);
    expect(laid.extra).toHaveLength(1);
  });

  it('tells the middle difference, and the load event where both have one', () => {
    const half = recording([recorded('/', ends[0] / 2), recorded('/a.js', ends[2])], 100);
    const laid = layUnder(timeline, half);
    expect(laid.middleDifference).toBeCloseTo(1);
    expect(laid.load).toEqual({ predicted: timeline.moments.load, recorded: 100 });
    expect(layUnder(timeline, recording([])).middleDifference).toBeNull();
    expect(layUnder(timeline, recording([])).load).toBeNull();
  });
});
