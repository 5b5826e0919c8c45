import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';
import { fontsIn } from './font-faces.ts';

afterAll(removeFolders);

const face = (more: string, family = 'Reed') =>
  `@font-face { font-family: "${family}"; src: local("x"), url(a.woff2) format("woff2"); ${more} }`;

describe('fonts of a style sheet', () => {
  it.each([
    [face(''), [['Reed', 'a.woff2', 'auto']]],
    [face('font-display: swap; font-weight: 100 900'), [['Reed', 'a.woff2', 'swap']]],
    [face('font-weight: 700'), []],
    [face('font-style: italic'), []],
    [face('unicode-range: U+0400-04FF'), []],
    [face('unicode-range: U+0000-00FF, U+0131'), [['Reed', 'a.woff2', 'auto']]],
    [face('unicode-range: U+00??'), [['Reed', 'a.woff2', 'auto']]],
    ['@font-face{font-family:Reed;src:local(Reed)}', []],
    [`/* ${face('')} */`, []],
  ])('%s', (css, expected) => {
    expect((fontsIn(css)?.faces ?? []).map((f) => [f.family, f.url, f.display])).toEqual(expected);
  });

  it.each([
    ['body { font-family: Reed, sans-serif }', ['Reed']],
    ['html, body { color: red; font: 400 1rem/1.5 "Far Reed", serif }', ['Far Reed']],
    [':root { --text: "Reed", serif } body { font-family: var(--text) }', ['Reed']],
    ['* { font: 12px Reed }', ['Reed']],
    ['h1 { font-family: Reed }', undefined],
    ['body { font-family: var(--none) }', undefined],
  ])('%s', (css, expected) => {
    expect(fontsIn(css)?.ofText).toEqual(expected);
  });
});

describe('an app with fonts', () => {
  const read = (files: Record<string, string>) =>
    readSource(
      folderOf({
        'index.html': '<link rel="stylesheet" href="/base.css"><script type="module" src="/main.js"></script>',
        'main.js': 'document.body.append("reed");',
        ...files,
      }),
    ).snapshot;

  it('has them on its routes, with the size of their files, if text is written in them', () => {
    const { routes } = read({
      'base.css': `${face('font-display: swap').replace('a.woff2', './fonts/a.woff2')} ${face('', 'Head')} body { font-family: Reed }`,
      'fonts/a.woff2': 'x'.repeat(500),
      'a.woff2': 'y',
    });
    expect(routes[0].fonts).toEqual([
      {
        ...{ id: 'Reed', address: '/assets/a.woff2', bytes: 500, module: 'fonts/a.woff2', serverMs: 5 },
        ...{ declaredBy: 'base.css', display: 'swap', evidence: { path: 'base.css', line: 1 } },
      },
    ]);
  });

  it('knows those that are served as they are, and tells of those that nobody can weigh', () => {
    const served = read({
      'base.css': `${face('').replace('a.woff2', '/fonts/a.woff2')} body { font-family: Reed }`,
      'public/fonts/a.woff2': 'x'.repeat(70),
    });
    expect(served.routes[0].fonts).toMatchObject([{ address: '/fonts/a.woff2', bytes: 70 }]);
    const far = read({
      'base.css': `${face('').replace('a.woff2', 'https://far.example/a.woff2')} body { font-family: Reed }`,
    });
    expect(far.routes[0].fonts).toBeUndefined();
    expect([served, far].map((app) => app.notices.map((n) => `${n.kind} ${n.path} ${n.message}`))).toEqual([
      [],
      [expect.stringMatching(/^font base\.css .*Reed at https:\/\/far\.example\/a\.woff2/)],
    ]);
    const inSheet = read({
      'base.css': `${face('').replace('a.woff2', 'data:font/woff2;base64,AAAA')} body { font-family: Reed }`,
    });
    expect([inSheet.routes[0].fonts, inSheet.notices]).toEqual([undefined, []]);
  });

  it('takes those of notes in their place', () => {
    const noted = { id: 'mine', address: '/mine.woff2', bytes: 9, declaredBy: 'base.css' };
    const { routes } = read({
      'base.css': `${face('')} body { font-family: Reed }`,
      'a.woff2': 'y',
      'yokeline.app.json': JSON.stringify({ defaults: { fonts: [noted] } }),
    });
    expect(routes[0].fonts).toEqual([{ ...noted, serverMs: 5, display: 'auto' }]);
  });
});
