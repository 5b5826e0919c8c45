import Papa from 'papaparse';
import { InputError } from '../errors.ts';
import { seeded } from '../sim/random.ts';
import { NavigationLog } from './navigation-log.ts';

/** What a log says that comes in these pieces, record by record, with what couldn't be read. */
function read(pieces: readonly string[]): unknown[] {
  const said: unknown[] = [];
  const log = new NavigationLog(
    'visits.log',
    (text) => Papa.parse<string[]>(text, { delimiter: ',' }).data,
    (record, line) => said.push([line, record]),
    (what, line) => said.push([line, 'refused', what]),
  );
  for (const piece of pieces) log.push(piece);
  log.end();
  return said;
}

const CSV = [
  'route,when,visit,Action,time',
  '/a,x,v1,,1000',
  '"/b, c",x,v1,open,2026-01-02T03:04:05Z',
  '',
  '/c,x,,,3000',
  '/d,x,v2,close,not a time',
  '/e,x,v3,go,4000.5',
].join('\n');
const JSON_LINES = [
  '{"visit":7,"time":10,"route":"/a"}',
  '',
  '{"visit":"v","time":"20","route":"/b","action":"open"}',
  '[1]',
  '{ broken',
  'null',
  '{"visit":"v","time":30,"route":5}',
  '{"visit":"","time":30,"route":"/c"}',
].join('\n');

describe('a navigation log', () => {
  it('is read as CSV by its heading, in any order of columns, with the lines that say nothing refused', () => {
    expect(read([CSV])).toEqual([
      [2, { visit: 'v1', time: 1000, route: '/a', action: '' }],
      [3, { visit: 'v1', time: Date.UTC(2026, 0, 2, 3, 4, 5), route: '/b, c', action: 'open' }],
      [5, 'refused', '/c,x,,,3000'],
      [6, 'refused', '/d,x,v2,close,not a time'],
      [7, { visit: 'v3', time: 4000.5, route: '/e', action: 'go' }],
    ]);
  });

  it('is read as lines of JSON where it begins so', () => {
    expect(read([JSON_LINES])).toEqual([
      [1, { visit: '7', time: 10, route: '/a', action: '' }],
      [3, { visit: 'v', time: 20, route: '/b', action: 'open' }],
      [4, 'refused', '[1]'],
      [5, 'refused', '{ broken'],
      [6, 'refused', 'null'],
      [7, 'refused', '{"visit":"v","time":30,"route":5}'],
      [8, 'refused', '{"visit":"","time":30,"route":"/c"}'],
    ]);
  });

  it.each([
    ['CSV', CSV],
    ['JSON', JSON_LINES],
    ['CSV that ends with a line', `${CSV}\n`],
    ['CSV after empty lines', `\n\n${CSV}`],
  ])('says the same wherever its pieces end: %s', (_, text) => {
    const whole = read([text]);
    const next = seeded(5);
    for (let run = 0; run < 300; run++) {
      const pieces: string[] = [];
      for (let from = 0; from < text.length; ) {
        const to = Math.min(text.length, from + 1 + Math.floor(next() * (run % 3 === 0 ? 4 : 60)));
        pieces.push(text.slice(from, to));
        from = to;
      }
      expect(read(pieces)).toEqual(whole);
    }
  });

  it('refuses a line of sixty characters whole, a longer one shortened', () => {
    const of = (length: number) => `/x,x,,,${'y'.repeat(length - 7)}`;
    expect(read([`${CSV.split('\n')[0]}\n${of(60)}\n${of(61)}`])).toEqual([
      [2, 'refused', of(60)],
      [3, 'refused', `${of(61).slice(0, 57)}…`],
    ]);
  });

  it('shortens what it refuses, and takes a mark at the beginning of the file', () => {
    const long = `/x,x,,,${'y'.repeat(80)}`;
    expect(read([`\uFEFF${CSV.split('\n')[0]}\n${long}`])).toEqual([[2, 'refused', `${long.slice(0, 57)}…`]]);
  });

  it.each([
    ['', 'Empty log', 'visits.log'],
    ['\n \n', 'Empty log', 'visits.log'],
    ['visit,when\nv,1', 'Not a navigation log', 'visits.log:1'],
    ['\n\nvisit,time\nv,1', 'Not a navigation log', 'visits.log:3'],
  ])('that is none is refused: %j', (text, title, at) => {
    expect(() => read([text])).toThrow(expect.objectContaining({ title, at }));
    expect(() => read([text])).toThrow(InputError);
  });
});
