import { program, rehearsal, run, timeline } from '../../test-support/rehearsals.ts';
import { HEADERS } from '../recordings/match.ts';
import type { RecordedRequest } from '../recordings/types.ts';
import { differencesOf } from './differences.ts';
import { differenceWords } from './words.ts';

describe('differences', () => {
  const [document, first] = timeline.requests;
  const recorded = (of: typeof first, more: Partial<RecordedRequest> = {}): RecordedRequest => ({
    ...{ address: `https://app.test${of.address}`, discovered: of.discovered, sent: of.sent },
    ...{ firstByte: of.firstByte, end: of.end, bytes: of.bytes + 300 },
    ...more,
  });
  const found = (requests: RecordedRequest[]) =>
    differencesOf({ timeline, program }, rehearsal([run({ requests, parts: [] })])).map((d) => [d.what, d.cause]);

  it('aren’t told where there are none', () => {
    expect(found([recorded(document), recorded(first)])).toEqual([]);
  });

  it('have the cause that most of them comes from', () => {
    const later = first.end + 300;
    expect(found([recorded(document), recorded(first, { end: later })])).toEqual([[first.name, 'transport']]);
    expect(found([recorded(document), recorded(first, { end: later, bytes: first.bytes * 2 })])).toEqual([
      [first.name, 'size'],
    ]);
    expect(found([recorded(document), recorded(first, { discovered: first.discovered + 300, end: later })])).toEqual([
      [first.name, 'asked later'],
    ]);
    expect(found([recorded(document)])).toEqual([[first.name, 'not asked for']]);
    expect(found([recorded(document), recorded(first), recorded(first, { address: 'https://app.test/x.js' })])).toEqual(
      [['/x.js', 'not predicted']],
    );
  });

  it('are told the largest first, as many as are asked for', () => {
    const parts = [
      { part: 'shell', shown: 4000, drawMs: 1, late: false },
      { part: 'page', shown: 5000, drawMs: 1, late: false },
    ];
    const made = rehearsal([run({ requests: [recorded(document), recorded(first, { end: first.end + 50 })], parts })]);
    const told = (most?: number) => differencesOf({ timeline, program }, made, most).map((d) => d.what);
    expect(told()).toEqual(['page (shown)', 'shell (shown)', first.name]);
    expect(told(2)).toEqual(['page (shown)', 'shell (shown)']);
  });

  it('aren’t told of parts that came as predicted, or were never seen', () => {
    const page = timeline.reveals.find((v) => program.parts[v.part].id === 'page' && v.state === 'shown')!.at;
    const shown = (at: number | null) =>
      differencesOf(
        { timeline, program },
        rehearsal([
          run({
            requests: [recorded(document), recorded(first)],
            parts: [{ part: 'page', shown: at, drawMs: 1, late: false }],
          }),
        ]),
      ).length;
    expect([shown(page), shown(page + 9), shown(page + 60), shown(null)]).toEqual([0, 0, 1, 0]);
  });

  it('come of another size from one in twenty on, headers left out', () => {
    const later = first.end + 300;
    const of = (bytes: number) => found([recorded(document), recorded(first, { end: later, bytes })])[0][1];
    const same = first.bytes + HEADERS;
    expect([of(same), of(same * 1.04), of(same / 0.94), of(same / 1.06)]).toEqual([
      'transport',
      'transport',
      'size',
      'size',
    ]);
  });

  it('are told from 10 ms and from three in a hundred on', () => {
    const told = (end: number) => found([recorded(document), recorded(first, { end: first.end + end })]).length;
    expect(first.end * 0.03).toBeGreaterThan(10);
    expect([told(9), told(first.end * 0.029), told(first.end * 0.035)]).toEqual([0, 0, 1]);
    // Early in a load 10 ms count, later a share does.
    const soon = (by: number) =>
      differencesOf(
        { timeline: { ...timeline, reveals: [{ part: 1, state: 'shown', at: 100 } as never] }, program },
        rehearsal([
          run({
            requests: [recorded(document), recorded(first)],
            parts: [{ part: 'page', shown: 100 + by, drawMs: 1, late: false }],
          }),
        ]),
      ).length;
    expect([soon(9.9), soon(10), soon(-10)]).toEqual([0, 1, 1]);
  });

  it('come by their names, those of other servers whole', () => {
    const named = (address: string) => found([recorded(document), recorded(first), recorded(first, { address })])[0][0];
    expect([named('https://app.test/a/b.js?c'), named('https://far.test')]).toEqual(['/a/b.js?c', 'https://far.test']);
  });

  it('that come half of one and half of another are told by when they were asked for', () => {
    const both = recorded(first, { discovered: first.discovered + 150, end: first.end + 300 });
    expect(found([recorded(document), both])).toEqual([[first.name, 'asked later']]);
    const less = recorded(first, { discovered: first.discovered + 149, end: first.end + 300 });
    expect(found([recorded(document), less])).toEqual([[first.name, 'transport']]);
    const fromCache = recorded(first, { end: first.end + 300, bytes: 0 });
    expect(found([recorded(document), fromCache])).toEqual([[first.name, 'transport']]);
  });

  it('have no other size where a size isn’t known', () => {
    const later = first.end + 300;
    expect(found([recorded(document), recorded(first, { end: later, bytes: 0 })])).toEqual([[first.name, 'transport']]);
  });

  it('are told of parts as well, in words', () => {
    const made = rehearsal([
      run({
        requests: [recorded(document), recorded(first)],
        parts: [{ part: 'page', shown: 5000, drawMs: 1, late: false }],
      }),
    ]);
    const [difference] = differencesOf({ timeline, program }, made);
    expect(difference).toMatchObject({ what: 'page (shown)', cause: 'thread', rehearsed: 5000 });
    expect(differenceWords(difference)).toMatch(
      /^page \(shown\): \d+ ms predicted, 5000 ms rehearsed: ran, or was drawn/,
    );
    expect(differenceWords({ what: 'a', cause: 'not asked for', predicted: 10, rehearsed: null })).toBe(
      'a: was never asked for (predicted at 10 ms)',
    );
  });
});
