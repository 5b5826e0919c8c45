import { NO_NOTES, parseNotes } from '../core/formats/app-notes.ts';
import { annotate } from './app-notes.ts';
import { readHtml, realmOf } from './html-document.ts';
import { minifyCommonJs, minifyScript, minifyStyle } from './weigh.ts';

describe('HTML entries', () => {
  it('start modules, styles and classic scripts, each with its place and line', () => {
    const entry = readHtml(
      `<!doctype html>
<html>
<head>
<link rel="stylesheet" href="/base.css">
<script src="/block.js"></script>
<script src="/async.js" async></script>
<script src="/defer.js" defer id="later"></script>
<script type="module" src="/src/main.ts"></script>
<script>inline()</script>
</head>
<body><p>Hello</p><script src="/end.js"></script></body></html>`,
    );
    const tags = entry.tags.map(({ kind, address, placement, line }) => [kind, address, placement, line]);
    expect(tags).toEqual([
      ['style', '/base.css', 'blocking', 4],
      ['script', '/block.js', 'blocking', 5],
      ['script', '/async.js', 'async', 6],
      ['script', '/defer.js', 'defer', 7],
      ['script', '/src/main.ts', 'module', 8],
      ['script', '/end.js', 'end of body', 11],
    ]);
    expect(entry.tags[3].id).toBe('later');
    expect(entry.inline).toEqual([{ module: false, text: 'inline()', id: null, line: 9 }]);
    expect(entry.drawn).toBe(true);
  });

  it('tell what they ask for ahead, and what of it browsers will ignore', () => {
    const entry = readHtml(`<base href="/app/">
<link rel="preload" href="/hero.jpg" as="image" fetchpriority="high">
<link rel="modulepreload" href="/src/heavy.ts">
<link rel="preconnect" href="https://cdn.example" crossorigin>
<link rel="preload" href="/forgot.js">
<link rel="prefetch">
<script nomodule src="/old.js"></script>
<script type="application/ld+json">{"a":1}</script>
<script type="importmap">{"imports":{"kit":"/lib/kit.js","far/":"https://cdn.example/far/"}}</script>
<script type="importmap">{ broken</script>
<body><script>document.body.append('drawn by script')</script></body>`);
    expect(entry.links.map(({ rel, as, crossorigin, priority }) => [rel, as, crossorigin, priority])).toEqual([
      ['preload', 'image', false, 'high'],
      ['modulepreload', 'script', false, 'auto'],
      ['preconnect', '', true, 'auto'],
    ]);
    expect(entry.troubles.map((t) => t.line)).toEqual([5, 6, 10]);
    expect([...entry.imports.keys()]).toEqual(['kit', 'far/']);
    expect([entry.base, entry.tags, entry.drawn, entry.inline.length]).toEqual(['/app/', [], false, 1]);
  });

  it('are named after their file or folder', () => {
    expect(['index.html', 'admin.html', 'admin/index.html'].map(realmOf)).toEqual(['site', 'admin', 'admin']);
  });
});

describe('app notes', () => {
  const bare = {
    pattern: '/a',
    realm: 'site',
    layouts: [],
    page: 'a.tsx',
    evidence: null,
    rendering: 'client' as const,
    data: [],
    content: [],
    parts: [
      {
        id: 'found',
        name: 'found',
        module: 'f.tsx',
        place: 'first screen' as const,
        interactive: true,
        share: 1,
        needs: [],
      },
    ],
  };

  it('give way to nothing, and fill in what they leave out', () => {
    const notes = parseNotes(
      JSON.stringify({
        defaults: { rendering: 'server', document: { bytes: 9000, serverMs: 10 } },
        shell: {
          parts: [
            {
              id: 'menu',
              name: 'menu',
              module: 'menu.tsx',
              place: 'conditional',
              condition: { kind: 'media', maxWidth: 600 },
            },
          ],
        },
        routes: {
          '/a': {
            content: [{ id: 'pic', address: '/p.jpg', bytes: 5, foundIn: 'document' }],
            parts: [{ id: 'own', name: 'own', module: 'own.tsx', place: 'below' }],
          },
        },
      }),
    );
    const route = annotate(bare, notes);
    expect(route).toMatchObject({ rendering: 'server', document: { bytes: 9000, serverMs: 10 } });
    expect(route.parts.map((p) => [p.id, p.interactive, p.share])).toEqual([
      ['menu', true, 1],
      ['own', true, 1],
    ]);
    expect(route.content[0]).toEqual({
      id: 'pic',
      kind: 'image',
      address: '/p.jpg',
      bytes: 5,
      serverMs: 5,
      foundIn: 'document',
      place: 'first screen',
      lazy: false,
    });
  });

  it('leave what the code proposes alone where there are none', () => {
    expect(annotate(bare, NO_NOTES)).toMatchObject({ rendering: 'client', parts: bare.parts, data: [], links: [] });
  });

  it('keep proposed parts of a route that they say something else of, but for those of the shell', () => {
    const [first] = bare.parts;
    const partsBy = (notes: object) => annotate(bare, parseNotes(JSON.stringify(notes))).parts.map((p) => p.id);
    expect(bare.parts.length).toBeGreaterThan(0);
    expect(partsBy({ routes: { '/a': { landings: 5 } } })).toEqual(bare.parts.map((p) => p.id));
    expect(partsBy({ shell: { parts: [{ ...first, id: 'frame' }] } })).toEqual([
      'frame',
      ...bare.parts.slice(1).map((p) => p.id),
    ]);
    expect(partsBy({ routes: { '/a': { parts: [] } } })).toEqual([]);
  });

  it.each([
    [
      '{"routes": {"/a": {"parts": [{"id": "x", "name": "x", "module": "m", "place": "moon"}]}}}',
      'routes["/a"].parts[0].place must be one of',
    ],
    ['{"defaults": {"rendering": "cloud"}}', 'defaults.rendering'],
    ['{"scripts": {"chat": {"bytes": -4}}}', 'scripts["chat"].bytes'],
    ['{"shell": []}', 'shell must be an object'],
  ])('that don’t fit are refused by the field (%#)', (text, words) => {
    expect(() => parseNotes(text)).toThrow(words);
  });

  it('refuse two parts of one id on a route', () => {
    const twin = { id: 'x', name: 'x', module: 'm', place: 'below' };
    const notes = parseNotes(JSON.stringify({ routes: { '/a': { parts: [twin, twin] } } }));
    expect(() => annotate(bare, notes)).toThrow('Rename one of the parts called x');
  });
});

describe('weighing', () => {
  it('minifies scripts and styles, and leaves alone what it can’t', () => {
    expect(minifyScript('a.js', 'export const sum = (first, second) => first + second;').length).toBeLessThan(40);
    expect(minifyScript('a.js', 'const = broken')).toBe('const = broken');
    const long = 'function someLongName(first) { return first + 1; }\nexports.value = someLongName(someLongName(2));';
    expect(minifyCommonJs('a.js', long)).not.toContain('someLongName');
    expect(minifyCommonJs('a.js', long)).toMatch(/^function\(\w+,\w+,\w+\)\{/);
    expect(minifyCommonJs('a.js', 'exports = = 1')).toBe('exports = = 1');
    const style = minifyStyle('a.css', '@import "b.css";\n.a { color: #ff0000; background: url("x.png"); }');
    expect(style.imports).toEqual([{ specifier: 'b.css', line: 1 }]);
    expect(style.urls).toEqual([{ specifier: 'x.png', line: 2 }]);
    expect(style.code).not.toContain('@import');
    expect(() => minifyStyle('a.css', '.a { color: red')).not.toThrow();
    expect(() => minifyStyle('a.css', '} .a { color: red }')).toThrow();
  });
});
