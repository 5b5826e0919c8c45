import { planned } from '../../core/chunks/planned.ts';
import { inventoryOf } from '../../core/inventory/inventory.ts';
import { BASELINE } from '../../core/plan/types.ts';
import { predict } from '../../core/predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../../core/sim/conditions.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { builtFile, outputOf } from '../../test-support/output.ts';
import { readApp } from '../read-app.ts';

afterAll(removeFolders);

const pad = (n: number, name: string) => `export const ${name}="${`${name}-`.repeat(n)}";`;

/** One document, an entry that defers a report; both hold a copy of the same helper. */
function shop(contents = true): Record<string, string> {
  const piece = (source: string, out: string, content: string) => ({ source, out, ...(contents ? { content } : {}) });
  const helper = piece('../src/helper.ts', pad(20, 'help'), 'export const help = 1;');
  const built = outputOf({
    'assets/main-1.js': builtFile([
      piece('../node_modules/@made/kit/index.js', pad(60, 'kit'), 'export const kit = 1;'),
      helper,
      piece('../src/big.ts', pad(300, 'big'), "import { kit } from '@made/kit'; export const big = kit;"),
      piece(
        '../src/main.ts',
        'import("./report-2.js");document.body.append("lantern");',
        "import { big } from './big';\nimport { help } from './helper';\nconst open = () => import('./report');\nopen(big, help);",
      ),
    ]),
    'assets/report-2.js': builtFile([
      helper,
      piece('../src/report.ts', pad(200, 'report'), "import { help } from './helper';\nexport default help;"),
    ]),
    'assets/style-3.css': builtFile([piece('../src/base.css', '.a{color:red}', '.a { color: red }')]),
  });
  const html =
    '<!doctype html><link rel="stylesheet" href="/shop/assets/style-3.css"><script type="module" src="/shop/assets/main-1.js"></script><div id="root"></div>';
  return { 'index.html': html, ...built };
}

describe('a production output', () => {
  const { snapshot, texts } = readApp(folderOf(shop()));
  const named = (path: string) => snapshot.modules.findIndex((m) => m.path === path);

  it('is told from sources, and its base address from its documents', () => {
    expect(snapshot.origin).toBe('output');
    expect(snapshot.base).toBe('/shop/');
    expect(snapshot.failed).toEqual([]);
    expect(snapshot.modules.map((m) => [m.path, m.kind, m.package])).toEqual([
      ['node_modules/@made/kit/index.js', 'script', '@made/kit'],
      ['src/base.css', 'style', null],
      ['src/big.ts', 'script', null],
      ['src/helper.ts', 'script', null],
      ['src/main.ts', 'script', null],
      ['src/report.ts', 'script', null],
    ]);
  });

  it('has the bytes of each module in each file, and modules that lie in several', () => {
    const files = snapshot.output!.files.map((f) => [f.path, f.modules.map((m) => snapshot.modules[m.module].path)]);
    expect(files).toEqual([
      ['assets/main-1.js', ['node_modules/@made/kit/index.js', 'src/big.ts', 'src/helper.ts', 'src/main.ts']],
      ['assets/report-2.js', ['src/helper.ts', 'src/report.ts']],
      ['assets/style-3.css', ['src/base.css']],
    ]);
    expect(snapshot.modules[named('src/big.ts')].bytes.minified).toBe(pad(300, 'big').length);
    expect(texts['src/big.ts']).toBe(pad(300, 'big'));
  });

  it('is linked by what its sources import, with places in them', () => {
    const links = snapshot.imports.map((i) => [
      snapshot.modules[i.from].path,
      i.kind,
      snapshot.modules[i.to].path,
      i.line,
    ]);
    expect(links).toEqual([
      ['src/big.ts', 'static', 'node_modules/@made/kit/index.js', 1],
      ['src/main.ts', 'static', 'src/big.ts', 1],
      ['src/main.ts', 'static', 'src/helper.ts', 2],
      ['src/main.ts', 'dynamic', 'src/report.ts', 3],
      ['src/report.ts', 'static', 'src/helper.ts', 1],
    ]);
  });

  it('has its real files as the baseline', () => {
    const graph = planned(snapshot, BASELINE).graph;
    expect(graph.chunks.map((c) => [c.file, c.bytes.gzip])).toEqual(
      snapshot.output!.files.map((f) => [f.path, f.bytes.gzip]),
    );
    const { timeline } = predict(snapshot, BASELINE, '/', DEFAULT_CONDITIONS);
    expect(timeline.requests.map((r) => r.address)).toEqual([
      '/',
      '/shop/assets/style-3.css',
      '/shop/assets/main-1.js',
    ]);
  });

  it('has copies, which the inventory names with their files and cost', () => {
    const { copies } = inventoryOf(snapshot, BASELINE, DEFAULT_CONDITIONS);
    expect(copies).toEqual([
      {
        path: 'src/helper.ts',
        files: ['assets/main-1.js', 'assets/report-2.js'],
        extra: snapshot.modules[named('src/helper.ts')].bytes.minified,
      },
    ]);
  });

  it('is cut again only where a decision touches it', () => {
    const before = planned(snapshot, BASELINE).graph;
    const plan = { ...BASELINE, decisions: [{ kind: 'detach' as const, import: 'src/main.ts::./big' }] };
    const after = planned(snapshot, plan).graph;
    const big = after.chunks.find((c) => c.modules.includes(named('src/big.ts')))!;
    expect(big.file).toBeUndefined();
    expect(big.modules.map((m) => snapshot.modules[m].path)).toEqual(['node_modules/@made/kit/index.js', 'src/big.ts']);
    const main = after.chunks.find((c) => c.file === 'assets/main-1.js')!;
    const moved = pad(300, 'big').length + pad(60, 'kit').length;
    expect(main.bytes.minified).toBe(snapshot.output!.files[0].bytes.minified - moved);
    const report = (chunks: typeof after.chunks) => chunks.find((c) => c.file === 'assets/report-2.js');
    expect(report(after.chunks)?.bytes).toEqual(report(before.chunks)?.bytes);
    const root = after.roots.find((r) => r.target[0] === named('src/big.ts'))!;
    expect(root.group.map((c) => after.chunks[c])).toEqual([big]);
  });

  it('without sources in its maps knows its files, and what is in them by name', () => {
    const { snapshot: bare } = readApp(folderOf(shop(false)));
    expect(bare.modules.map((m) => m.path)).toEqual(['assets/main-1.js', 'assets/report-2.js', 'assets/style-3.css']);
    const [main] = bare.output!.files;
    expect(main.inside).toBe('names');
    expect(main.contents[0]).toEqual({ source: '../src/big.ts', bytes: pad(300, 'big').length });
    expect(bare.imports.map((i) => [i.from, i.kind, i.to])).toEqual([[0, 'dynamic', 1]]);
    const { timeline } = predict(bare, BASELINE, '/', DEFAULT_CONDITIONS);
    expect(timeline.requests).toHaveLength(3);
  });

  it('is found under the base element of its document', () => {
    const html = '<base href="/shop/"><script type="module" src="assets/main-1.js"></script>';
    const { snapshot: moved } = readApp(folderOf({ ...shop(), 'index.html': html }));
    expect(moved.base).toBe('/shop/');
    expect(moved.output!.starts[0].tags).toHaveLength(1);
    expect(moved.notices.filter((n) => n.kind === 'base')).toEqual([]);
  });

  it('of several documents is a route each, and names what leads nowhere', () => {
    const { snapshot: site } = readApp(
      folderOf({
        ...shop(),
        'about/index.html':
          '<h1>About</h1><script src="/shop/assets/lost-9.js" defer></script><script src="/shop/assets/main-1.js" type="module"></script>',
        '404.html': '<script src="/shop/assets/main-1.js" type="module"></script>',
      }),
    );
    expect(site.routes.map((r) => [r.pattern, r.realm, r.rendering])).toEqual([
      ['/', 'site', 'client'],
      ['/about', 'about', 'server'],
    ]);
    const [stray] = site.notices.filter((n) => n.kind === 'base');
    expect(stray.message).toContain('/shop/assets/lost-9.js (line 1) is no file');
  });
});

describe('an output that is not as it should be', () => {
  const with_ = (more: Record<string, string>) => readApp(folderOf({ ...shop(), ...more }), { as: 'output' }).snapshot;

  it('with a broken map, or none where one is named, keeps the file as one module', () => {
    const broken = with_({ 'assets/main-1.js.map': '{ "version": 3, "sour' });
    expect(broken.output!.files[0].inside).toBe('none');
    expect(broken.failed).toMatchObject([{ path: 'assets/main-1.js' }]);
    expect(broken.failed[0].message).toContain('broken');
    const missing = with_({ 'assets/report-2.js': 'export default 1;\n//# sourceMappingURL=gone.map' });
    expect(missing.failed[0].message).toContain("gone.map isn't there");
    const outside = with_({ 'assets/report-2.js': 'export default 1;\n//# sourceMappingURL=../../../x.map' });
    expect(outside.failed[0].message).toContain('outside of the folder');
  });

  it('of another build than its map is read with a warning', () => {
    const other = with_({ 'assets/report-2.js': 'export default 1;\n//# sourceMappingURL=report-2.js.map' });
    expect(other.failed[0].message).toContain('point outside of the file');
  });

  it.each([
    ['development', `eval("a()\\n//# sourceURL=kit:///src/a.js");`],
    ['development', 'import.meta.hot.accept();'],
    [
      'unminified',
      `function handler(first, second) {\n    if (first) {\n        return second + 1;\n    }\n}\n`.repeat(80),
    ],
    ['unnamed file', 'lonely();'],
  ])('is pointed out: %s', (kind, text) => {
    const { notices } = with_({ 'assets/extra.js': text });
    expect(notices.filter((n) => n.path === 'assets/extra.js').map((n) => n.kind)).toContain(kind);
  });

  it('is pointed out when it would travel uncompressed or with its map inside', () => {
    const kinds = (more: Record<string, string>, path: string) =>
      with_(more)
        .notices.filter((n) => n.path === path)
        .map((n) => n.kind);
    expect(kinds({}, '')).toEqual(['uncompressed']);
    expect(kinds({ 'assets/main-1.js.br': 'x' }, 'assets/report-2.js')).toEqual(['uncompressed']);
    const { text, map } = builtFile([{ source: 'a.ts', out: 'alpha()', content: 'alpha();' }]);
    const inline = `${text}\n//# sourceMappingURL=data:application/json;base64,${Buffer.from(map).toString('base64')}`;
    expect(kinds({ 'assets/report-2.js': inline }, 'assets/report-2.js')).toEqual(['inline map']);
  });

  it('without documents, or under a base address that fits nothing, is refused with what to do', () => {
    expect(() => readApp(folderOf({ 'a.js': 'a()' }), { as: 'output' })).toThrow('needs HTML files');
    expect(() => readApp(folderOf(shop()), { as: 'output', base: '/other/' })).toThrow(
      'under the base address /other/',
    );
  });
});
