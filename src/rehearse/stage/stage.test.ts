import fs from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import zlib from 'node:zlib';
import fc from 'fast-check';
import { parse } from 'parse5';
import { NO_AMENDMENTS } from '../../core/amend/types.ts';
import type { Resource } from '../../core/load/types.ts';
import { BASELINE, type Decision, type Plan } from '../../core/plan/types.ts';
import { answersInFolder } from '../../reader/answers/app-types.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { file, page } from '../../test-support/programs.ts';
import type { Answer } from '../serve/types.ts';
import { addressMatches, addressOn } from './addresses.ts';
import { dataAnswers } from './answers.ts';
import { applyPlan } from './apply-plan.ts';
import { compressedTo } from './compressed.ts';
import { bareDocument, documentOf, linkField } from './document.ts';
import { HOST, siteFor } from './site.ts';
import { standInFor } from './stand-ins.ts';

afterAll(removeFolders);

const plan = (...decisions: Decision[]): Plan => ({ name: 'Lean', description: '', decisions });
const APP = {
  'package.json': '{ "name": "harbour", "dependencies": { "react": "*" } }',
  'index.html':
    '<!doctype html><html><head><title>Harbour</title><link rel="stylesheet" href="/old.css"><script>window.early = 1</script></head><body><div id="root"></div><script type="module" src="/src/main.jsx"></script></body></html>',
  'src/main.jsx':
    "import { routes } from './routes.jsx'; import './look.css'; document.getElementById('root').append(String(routes.length)); fetch('/api/tides');",
  'src/routes.jsx':
    "import Home from './home.jsx';\nexport const routes = [{ path: '/', component: Home }, { path: '/berths/:id', component: () => import('./berth.jsx') }];",
  'src/home.jsx':
    "import { open } from './dialog.js';\nimport boat from './boat.png';\nexport default function Home() { return <button onClick={() => open()}><img src={boat} /></button>; }",
  'src/dialog.js': "export function open() { return 'open'; }",
  'src/berth.jsx': 'export default function Berth() { return null; }',
  'src/look.css': 'body { margin: 0 }',
  'src/boat.png': 'PNG boat',
  'public/robots.txt': 'all',
};
const folder = folderOf(APP);
const detach: Decision = { kind: 'detach', module: 'src/dialog.js' };

describe('an app under a plan', () => {
  it('is read as the patch edits it, with no file written', () => {
    const applied = applyPlan(folder, plan(detach, { kind: 'floor', bytes: 10 }));
    expect(applied.leftOut).toEqual([]);
    expect(applied.plan.decisions).toEqual([{ kind: 'floor', bytes: 10 }]);
    const { modules, imports } = applied.snapshot;
    const link = imports.find((i) => modules[i.to].path === 'src/dialog.js')!;
    expect(link.kind).toBe('dynamic');
    expect(applied.texts['src/home.jsx']).toMatch(/import\(.\.\/dialog\.js.\)/);
    expect(fs.readFileSync(path.join(folder, 'src/home.jsx'), 'utf8')).toBe(APP['src/home.jsx']);
    // What was read in between is as it was.
    expect(applyPlan(folder, BASELINE).snapshot.imports.find((i) => i.specifier === './dialog.js')!.kind).toBe(
      'static',
    );
  });

  it('leaves out what only a person can edit in, and says why and where', () => {
    const split: Decision = { kind: 'split', splitPoint: 'src/berth.jsx', onError: 'a message' };
    const applied = applyPlan(folder, plan(split, detach));
    expect(applied.leftOut).toEqual([{ decision: 0, why: expect.stringContaining('(src/berth.jsx:1)') }]);
    expect(applied.texts['src/home.jsx']).toMatch(/import\(.\.\/dialog\.js.\)/);
  });
});

const plainOf = ({ body, encoding }: Pick<Answer, 'body' | 'encoding'>) =>
  encoding === 'br' ? zlib.brotliDecompressSync(body) : encoding === 'gzip' ? zlib.gunzipSync(body) : body;

describe('a site', () => {
  const site = siteFor(applyPlan(folder, plan(detach), NO_AMENDMENTS), '/', { folder });
  const get = (address: string, forDocument = false) => site.answering({ host: HOST, address, forDocument });
  const textOf = (answer: Awaited<ReturnType<typeof get>>) => answer && plainOf(answer).toString();

  it('serves every file of the landing under the address that its prediction has', async () => {
    const scripts = site.program.resources.filter((r) => r.chunk !== undefined);
    expect(scripts.length).toBeGreaterThan(1);
    for (const { address, type } of scripts) {
      const answer = await get(address);
      expect(answer).toMatchObject({ cache: 'immutable', type: type === 'style' ? 'text/css' : 'text/javascript' });
    }
    expect(site.answers.map(([r]) => r.address)).toEqual(expect.arrayContaining(scripts.map((r) => r.address)));
  });

  it('sends assembled files about as large as they are predicted, by ways that the browser takes', async () => {
    const body = Buffer.from(Array.from({ length: 4000 }, (_, i) => `tide${(i * 7919) % 613}(${i % 97});`).join(''));
    const answer: Answer = { type: 'text/javascript', body, cache: 'immutable', serverMs: 0 };
    const [usual, least] = [zlib.gzipSync(body, { level: 6 }), zlib.brotliCompressSync(body)].map((b) => b.length);
    expect(least).toBeLessThan(usual * 0.9);
    for (const wanted of [usual, Math.round((usual + least) / 2), least, 10]) {
      const made = compressedTo(wanted, answer, true);
      expect(plainOf(made).equals(body)).toBe(true);
      expect(Math.abs(made.body.length - wanted)).toBeLessThanOrEqual(
        Math.min(usual - wanted, Math.abs(least - wanted)),
      );
      expect(compressedTo(wanted, answer, false).encoding).toBe('gzip');
    }
    expect(compressedTo(usual, answer, true).encoding).toBe('gzip');
  });

  it('has a document with its own scripts and links replaced', async () => {
    const html = (await textOf(await get('/', true)))!;
    expect(html).toContain('window.early = 1');
    expect(html).not.toContain('/src/main.jsx');
    expect(html).not.toContain('/old.css');
    const entry = site.program.resources.find((r) => /entry/.test(r.address) && r.type === 'script')!;
    expect(html).toContain(`<script type="module" src="${entry.address}"></script>`);
    expect(html.indexOf(entry.address)).toBeLessThan(html.indexOf('</head>'));
  });

  it('answers other routes, files of the folder, assets and calls; what isn’t there is told', async () => {
    expect(textOf(await get('/berths/7', true))).toContain('id="root"');
    expect(await get('/nowhere', true)).toBeNull();
    expect(textOf(await get('/robots.txt'))).toBe('all');
    expect(textOf(await get('/assets/boat.png'))).toBe('PNG boat');
    expect(await get('/assets/none.png')).toBeNull();
    expect(textOf(await get('/api/tides?day=1'))?.trim()).toBe('[]');
    expect(site.told).toEqual([expect.stringContaining('/api/tides')]);
  });

  it('gives what recorded answers say', async () => {
    const data = dataAnswers({ folder: folderOf({ 'api/tides.json': '[4, 5]' }) });
    const own = siteFor(applyPlan(folder, BASELINE), '/', { folder, data });
    const answer = await own.answering({ host: HOST, address: '/api/tides', forDocument: false });
    expect([answer?.body.toString(), own.told]).toEqual(['[4, 5]', []]);
  });

  it('makes answers up of which code states a type, and tells so', async () => {
    const typed = folderOf({
      ...APP,
      'src/home.jsx': '',
      'src/home.tsx':
        "interface Tide { id: number; at: string }\nfetch('/api/tides').then((r) => r.json() as Promise<Tide[]>).then(console.log);\nexport default function Home() { return null; }",
      'src/routes.jsx': APP['src/routes.jsx'].replace('./home.jsx', './home.tsx'),
    });
    const applied = applyPlan(typed, BASELINE);
    const made = siteFor(applied, '/', { folder: typed, shapes: answersInFolder(typed, applied.snapshot, '/') });
    const answer = await made.answering({ host: HOST, address: '/api/tides?day=1', forDocument: false });
    const rows = JSON.parse(answer!.body.toString());
    expect(rows).toHaveLength(10);
    expect(rows[1]).toEqual({ id: 2, at: expect.any(String) });
    expect(answer!.body.length).toBeGreaterThanOrEqual(2000);
    expect(made.told).toEqual(['a made-up answer for /api/tides: Promise<Tide[]> in the code, lists with 10 rows']);
  });

  it('makes answers up to queries that go to one address, each by what it asks for', async () => {
    const asking = folderOf({
      ...APP,
      'src/home.jsx':
        "import { gql, useQuery } from 'kit-graphql';\nconst TIDES = gql`query Tides { tides { id metres } }`;\nconst HAVENS = gql`query Havens { haven { name } }`;\nexport default function Home() { useQuery(TIDES); useQuery(HAVENS); return null; }",
    });
    const applied = applyPlan(asking, BASELINE);
    const made = siteFor(applied, '/', { folder: asking, shapes: answersInFolder(asking, applied.snapshot, '/') });
    const answerTo = async (name: string) => {
      const sent = {
        method: 'POST',
        type: 'application/json',
        text: JSON.stringify({ operationName: name, query: '' }),
      };
      const answer = await made.answering({ host: HOST, address: '/graphql', forDocument: false, sent });
      return JSON.parse(answer!.body.toString());
    };
    expect((await answerTo('Tides')).data.tides[1]).toEqual({ id: 'no-2', metres: expect.any(Number) });
    expect(await answerTo('Havens')).toEqual({ data: { haven: { name: expect.any(String) } } });
    expect(await answerTo('Others')).toEqual([]);
    expect(made.told).toEqual([
      'a made-up answer for /graphql#Tides: the fields of Tides in the code, lists with 10 rows',
      'a made-up answer for /graphql#Havens: the fields of Havens in the code, lists with 10 rows',
      'a stand-in (an empty list) for the answer of /graphql#Others',
    ]);
  });

  it('is landed on at an address of its route only', () => {
    const at = (address: string) => siteFor(applyPlan(folder, BASELINE), '/berths/:id', { folder, address }).address;
    expect(at('/berths/7?tab=1')).toBe('/berths/7?tab=1');
    expect(() => at('/berth/7')).toThrow(/isn’t an address of \/berths\/:id/);
  });

  it('knows what is done once it has come to rest: links to other routes, one after the other', () => {
    const of = (...acts: string[]) => siteFor(applyPlan(folder, BASELINE), '/', { folder, acts }).acts;
    const there = { does: 'move', linkTo: '/berths/:id', others: ['/'] };
    expect(of('/berths/:id')).toEqual([there]);
    expect(of('/berths/:id', '/')).toEqual([there, { does: 'move', linkTo: '/', others: ['/berths/:id'] }]);
    expect(() => of('/berths/:id', '/berths/:id')).toThrow(/Routes that can be moved to: \//);
    expect(() => of('/berth')).toThrow(/Routes that can be moved to: \/berths\/:id/);
  });

  it('isn’t made of packages that only their own build can link', () => {
    const angular = folderOf({
      ...APP,
      'index.html': '<a-page></a-page><script type="module" src="/main.ts"></script>',
      'main.ts': "import '@angular/core';\nexport const routes = [];",
      'node_modules/@angular/core/package.json': '{ "name": "@angular/core", "version": "21.0.0", "main": "index.js" }',
      'node_modules/@angular/core/index.js': 'export const core = 1;',
    });
    const applied = applyPlan(angular, BASELINE);
    expect(() => siteFor(applied, '/', { folder: angular })).toThrow(/linked them/);
  });

  it('isn’t made of routes that the server draws', () => {
    const notes = { 'yokeline.app.json': '{ "routes": { "/": { "rendering": "server" } } }' };
    const drawn = folderOf({ ...APP, ...notes });
    const applied = applyPlan(drawn, BASELINE);
    expect(() => siteFor(applied, '/', { folder: drawn })).toThrow(/server draws this route/);
  });
});

describe('a production build', () => {
  const BUILT = {
    'index.html':
      '<!doctype html><html><head lang="en"><title>Quay</title><script type="module" src="/app/a/main-1a2b3c4d.js"></script></head><body></body></html>',
    'a/main-1a2b3c4d.js': "import('./late-5e6f7a8b.js')",
    'a/late-5e6f7a8b.js': 'export const late = 1',
  };
  const built = folderOf(BUILT);
  const hint: Decision = {
    kind: 'hint',
    hint: {
      kind: 'modulepreload',
      place: 'markup',
      target: { kind: 'split point', module: 'a/late-5e6f7a8b.js' },
      routes: ['/'],
    },
  };
  const applied = applyPlan(built, plan({ kind: 'floor', bytes: 100 }, hint), NO_AMENDMENTS, {
    as: 'output',
    base: '/app/',
  });

  it('is served as it is, with the hints of the plan in its documents', async () => {
    const site = siteFor(applied, '/', { folder: built });
    const get = (address: string, forDocument = false) => site.answering({ host: HOST, address, forDocument });
    const html = zlib.gunzipSync((await get('/', true))!.body).toString();
    expect(html).toContain(BUILT['index.html'].slice(BUILT['index.html'].indexOf('<title>')));
    expect(html).toMatch(
      /<head lang="en">[\s\S]*<link rel="modulepreload" href="\/app\/a\/late-5e6f7a8b.js">[\s\S]*<title>/,
    );
    const file = (await get('/app/a/main-1a2b3c4d.js'))!;
    expect(zlib.gunzipSync(file.body).toString()).toBe(BUILT['a/main-1a2b3c4d.js']);
    expect(await get('/app/a/none.js')).toBeNull();
    expect(await get('/app/../../etc/passwd.js')).toBeNull();
  });

  it('is refused where the document is no file of it', () => {
    const { entries } = applied.snapshot;
    const without = {
      ...applied,
      snapshot: { ...applied.snapshot, entries: entries.map((e) => ({ ...e, document: null })) },
    };
    expect(() => siteFor(without, '/', { folder: built })).toThrow(/no HTML file/);
  });

  it('leaves out what would need another build', () => {
    expect(applied.leftOut).toEqual([{ decision: 0, why: expect.stringContaining('build again') }]);
    expect(applied.plan.decisions).toEqual([hint]);
  });
});

describe('a document', () => {
  const program = page(
    [
      {
        at: 1,
        tag: 'link',
        rel: 'preload',
        resource: 1,
        as: 'style',
        crossorigin: true,
        fetchpriority: 'high',
        chosen: true,
      },
      { at: 2, tag: 'link', rel: 'preconnect', resource: -1, origin: 'https://cdn.test', chosen: true },
      { at: 3, tag: 'script', group: 0, mode: 'defer' },
      {
        at: 4,
        tag: 'inline',
        name: 'late',
        cpuMs: 0,
        follow: [{ when: 'load', do: { kind: 'script', group: 0, ordered: false } }],
      },
      { at: 5, tag: 'body' },
      { at: 6, tag: 'script', group: 0, mode: 'blocking', fetchpriority: 'low' },
    ],
    [file('/a.js?x="1"'), file('/s.css', { type: 'style' })],
  );

  it('has the tags of the landing in its head and body', () => {
    const html = documentOf(
      '<!doctype html><head><script src="/x.js"></script></head><body><p>here</p></body>',
      program,
      '<!--last-->',
    );
    const tags = [
      '<link rel="preload" href="/s.css" as="style" crossorigin fetchpriority="high">',
      '<link rel="preconnect" href="https://cdn.test">',
      '<script defer src="/a.js?x=&quot;1&quot;"></script>',
      "addEventListener('load'",
      '<!--last-->',
      '</head>',
      '<p>here</p>',
      '<script src="/a.js?x=&quot;1&quot;" fetchpriority="low"></script>',
    ].map((tag) => html.indexOf(tag));
    expect(tags.every((t) => t >= 0)).toBe(true);
    expect([...tags].sort((a, b) => a - b)).toEqual(tags);
    expect(html).not.toContain('/x.js');
  });

  it('is made whatever is missing of the written one', () => {
    for (const written of [bareDocument([]), '', '<p>no head', '<html><body>x', '<!doctype html>text']) {
      const html = documentOf(written, program);
      const text = JSON.stringify(parse(html), (key, value) => (key === 'parentNode' ? undefined : value));
      expect(text.match(/"src"/g)?.length).toBe(2);
    }
  });

  it('has the places that the code of its entry draws in, where none is written', () => {
    const code = [
      'createRoot(document.getElementById("root")).render(a); b.mount(`#side-bar`);',
      "new App({ target: '#x' }); document.querySelector('#root'); document.querySelector('.rows'); c.mount(place);",
    ];
    expect(bareDocument(code)).toContain(
      '<body><div id="root"></div><div id="side-bar"></div><div id="x"></div></body>',
    );
  });

  it('names links in headers as well', () => {
    const [link] = program.document.markup as never as [Parameters<typeof linkField>[0]];
    expect(linkField(link, program)).toBe('</s.css>; rel="preload"; as="style"; crossorigin; fetchpriority="high"');
  });
});

describe('stand-ins', () => {
  it('are as large as what they stand for, and run without an error', () => {
    const types: Resource['type'][] = ['script', 'style', 'image', 'font', 'fetch'];
    fc.assert(
      fc.property(fc.constantFrom(...types), fc.nat({ max: 20_000 }), fc.nat({ max: 3 }), (type, bytes, cpuMs) => {
        const { body } = standInFor(file('/x', { type, bytes, cpuMs }));
        const least = standInFor(file('/x', { type, bytes: 0, cpuMs })).body.length;
        expect(body.length).toBe(Math.max(bytes, least));
        if (type === 'script') expect(() => new Function(body.toString())).not.toThrow();
        if (type === 'fetch') expect(JSON.parse(body.toString())).toEqual([]);
      }),
    );
  });
});

describe('addresses', () => {
  it.each([
    ['/', '/'],
    ['/berths/:id', '/berths/1'],
    ['/files/*', '/files/1'],
    ['/a/:one/b/:two?', '/a/1/b/1'],
  ])('on %s: %s, which fits it', (pattern, address) => {
    expect(addressOn(pattern)).toBe(address);
    expect(addressMatches(pattern, address)).toBe(true);
  });

  it.each([
    ['/api/berths/{id}', '/api/berths/4', true],
    [`/api/berths/${'$'}{id}/ships`, '/api/berths/4/ships', true],
    ['/api/berths/:id', '/api/berths', false],
    ['/api/berths/:id', '/api/berths/4/ships', false],
    ['/api/tides?day=1', '/api/tides', true],
    ['/files/*', '/files/a/b', true],
    ['/files', '/file', false],
  ])('%s and %s', (pattern, address, fits) => expect(addressMatches(pattern, address)).toBe(fits));
});

describe('answers to calls', () => {
  it('come from files by address, and from nowhere else', async () => {
    const answers = dataAnswers({ folder: folderOf({ 'api/a.json': '{"a":1}', 'api/b': 'plain' }) });
    expect((await answers('/api/a?x=1'))?.body.toString()).toBe('{"a":1}');
    expect((await answers('/api/b'))?.body.toString()).toBe('plain');
    expect(await answers('/api/none')).toBeNull();
    expect(await answers('/..%2F..%2Fetc/passwd')).toBeNull();
  });

  it('to queries of GraphQL come by their names', async () => {
    const asks = (name: string) => ({
      method: 'POST',
      type: 'application/json',
      text: JSON.stringify({ query: `query ${name} { a }` }),
    });
    const entries = ['Tides', 'Havens'].map((name) => ({
      request: { url: 'https://x.test/q', postData: { text: asks(name).text } },
      response: { status: 200, content: { mimeType: 'application/json', text: `recorded ${name}` } },
    }));
    const made = folderOf({
      'q/Tides.json': 'kept Tides',
      'q.json': 'kept others',
      'x.har': JSON.stringify({ log: { entries } }),
    });
    const [kept, recorded] = [dataAnswers({ folder: made }), dataAnswers({ har: path.join(made, 'x.har') })];
    const text = async (answers: typeof kept, name: string) => (await answers('/q', asks(name)))?.body.toString();
    expect(await text(kept, 'Tides')).toBe('kept Tides');
    expect(await text(kept, 'Havens')).toBe('kept others');
    expect(await text(recorded, 'Havens')).toBe('recorded Havens');
    expect(await text(recorded, 'Marks')).toBeUndefined();
  });

  it('come from a recording, by query first', async () => {
    const entry = (url: string, text: string, more = {}) => ({
      request: { url },
      response: { status: 201, content: { mimeType: 'application/json', text, ...more } },
    });
    const entries = [
      entry('https://x.test/a?n=1', 'one'),
      entry('https://x.test/a?n=2', 'two'),
      entry('https://x.test/b', 'dHdv', { encoding: 'base64' }),
    ];
    const har = path.join(
      folderOf({ 'x.har': JSON.stringify({ log: { entries: [...entries, {}, { request: { url: 'bad' } }] } }) }),
      'x.har',
    );
    const answers = dataAnswers({ har });
    expect((await answers('/a?n=2'))?.body.toString()).toBe('two');
    expect((await answers('/a?n=9'))?.body.toString()).toBe('one');
    expect(await answers('/b')).toMatchObject({ status: 201, body: Buffer.from('two') });
    expect(await answers('/c')).toBeNull();
  });

  it('come from a server; one that doesn’t answer gives none', async () => {
    const server = http.createServer(async (request, response) => {
      const pieces: Buffer[] = [];
      for await (const piece of request) pieces.push(piece as Buffer);
      const sent = pieces.length > 0 ? ` ${request.method} ${request.headers['content-type']} ${pieces.join('')}` : '';
      response.writeHead(203).end(`${request.url}${sent}`);
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as AddressInfo;
    const answers = dataAnswers({ address: `http://127.0.0.1:${port}` });
    expect(await answers('/api/x?y=1')).toMatchObject({ status: 203, body: Buffer.from('/api/x?y=1') });
    const sent = { method: 'PUT', type: 'text/plain', text: 'what is sent' };
    expect((await answers('/api/x', sent))?.body.toString()).toBe('/api/x PUT text/plain what is sent');
    await new Promise((done) => {
      server.close(done);
      server.closeAllConnections();
    });
    expect(await answers('/api/x')).toBeNull();
  });

  it('that can’t be read are refused with what to do', () => {
    expect(() => dataAnswers({ folder: '/no/such/folder' })).toThrow(/no folder/);
    expect(() => dataAnswers({ har: path.join(folder, 'package.json') })).toThrow(/isn’t an HTTP Archive/);
    expect(() => dataAnswers({ address: 'ftp://x' })).toThrow(/no address of a server/);
  });
});
