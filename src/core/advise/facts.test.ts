import { route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import type { DocumentLink } from '../snapshot/document-types.ts';
import { factsOf } from './facts.ts';

const font = {
  id: 'text',
  address: '/text.woff2',
  bytes: 9,
  serverMs: 5,
  declaredBy: 'base',
  display: 'auto' as const,
};
const link = (more: Partial<DocumentLink>): DocumentLink => ({
  ...{ realm: 'site', rel: 'preload', address: '/text.woff2', as: 'font', crossorigin: true, priority: 'auto' },
  ...{ bytes: null, evidence: { path: 'index.html', line: 4 } },
  ...more,
});
const bytes = { bytes: 9000, serverMs: 40 };
const pieces = [
  { upTo: 4000, atMs: 0 },
  { upTo: 9000, atMs: 600 },
];

function about(more: Parameters<typeof route>[2], links: DocumentLink[] = []): string[] {
  const app = sketch({ main: { imports: ['home'] }, home: {}, base: { kind: 'style' } }, { links });
  return factsOf({ ...app, routes: [route('/', 'home', more)] }, BASELINE).map((f) => f.what);
}

describe('facts about documents', () => {
  it.each([
    ['nothing', {}, []],
    [
      'a redirect',
      { document: { ...bytes, redirects: [{ origin: '', serverMs: 30 }] } },
      ['people come to / by a redirect'],
    ],
    [
      'a streamed document of the server',
      { rendering: 'server', document: { ...bytes, flushes: pieces } },
      ['the scripts of / wait for the end of its streamed document'],
    ],
    ['a streamed document that script fills', { document: { ...bytes, flushes: pieces } }, []],
    ['one that is sent at once', { rendering: 'server', document: { ...bytes, flushes: [pieces[0]] } }, []],
  ] as const)('%s', (_, more, expected) => {
    expect(about(more as Parameters<typeof route>[2])).toEqual(expected);
  });

  it.each([
    ['without crossorigin', link({ crossorigin: false }), true],
    ['without as, of a font that text is written in', link({ crossorigin: false, as: '' }), true],
    ['as sheets ask', link({}), false],
    ['of something else', link({ crossorigin: false, as: 'image', address: '/a.png' }), false],
    ['that only may be used later', link({ crossorigin: false, rel: 'prefetch' }), false],
  ])('a preload of a font %s', (_, one, told) => {
    expect(about({ fonts: [font] }, [one])).toEqual(told ? ['the preload of /text.woff2 lacks crossorigin'] : []);
  });
});
