import { part, route, sketch } from '../../test-support/snapshots.ts';
import { readFileMap } from '../formats/file-map.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import type { Hint } from '../vocabulary/hints.ts';
import type { FileMap } from './addresses.ts';
import { handoff } from './handoff.ts';
import { review } from './review.ts';
import type { ArtefactKind } from './types.ts';

const image = { kind: 'image' as const, bytes: 9000, serverMs: 10, place: 'first screen' as const, lazy: false };
const app = sketch(
  {
    main: { imports: ['~home', '~list'] },
    home: { imports: ['src/parts/tide-chart', '~dialog'] },
    'src/parts/tide-chart': { bytes: 40_000 },
    dialog: { bytes: 20_000 },
    list: {},
  },
  {
    base: '/app/',
    routes: [
      route('/', 'home', {
        content: [{ ...image, id: 'pic', address: '/a pic".jpg', foundIn: 'document' }],
        parts: [part('dialog', 'dialog', { place: 'action' })],
        links: ['/list/:id'],
      }),
      route('/list/:id', 'list'),
    ],
  },
);
const dialog = { kind: 'split point', module: 'dialog' } as const;
const hint = (more: Partial<Hint> & Pick<Hint, 'kind' | 'target'>): Decision => ({
  kind: 'hint',
  hint: { place: 'markup', routes: ['/'], ...more },
});

function textOf(kind: ArtefactKind, decisions: Decision[], files: FileMap | null = null): string {
  const plan: Plan = { name: 'Lean', description: '', decisions };
  return handoff(app, plan, files).artefacts.find((a) => a.kind === kind)!.text;
}

const MAP = { dialog: 'assets/dialog-1f.js' };

describe('tags that are there already', () => {
  const counted = {
    ...app,
    scripts: [
      {
        id: 'count',
        name: 'count',
        address: '/v/a"b--> <c.js',
        bytes: 900,
        serverMs: 5,
        evaluationMs: 2,
        placement: 'blocking' as const,
        evidence: { path: 'index.html', line: 5 },
      },
    ],
    links: [
      {
        realm: app.routes[0].realm,
        rel: 'preload' as const,
        address: '/old.woff2',
        as: 'font',
        crossorigin: true,
        priority: 'auto' as const,
        bytes: null,
        evidence: { path: 'index.html', line: 7 },
      },
    ],
  };
  const markup = (decisions: Decision[]) =>
    handoff(counted, { name: 'Lean', description: '', decisions }, null).artefacts.find((a) => a.kind === 'markup')!
      .text;
  const ADDRESS = '/v/a&quot;b--> &lt;c.js';

  it.each([
    ['async', 'in the head', `<script src="${ADDRESS}" async></script>`],
    ['defer', 'in the head', `<script src="${ADDRESS}" defer></script>`],
    ['module', 'in the head', `<script type="module" src="${ADDRESS}"></script>`],
    ['end of body', 'at the end of the body', `<script src="${ADDRESS}"></script>`],
    [
      'after load',
      'in the head',
      `<script>addEventListener('load', () => document.head.append(Object.assign(document.createElement('script'), { src: "/v/a\\"b--> \\u003cc.js" })));</script>`,
    ],
    ['inlined', 'in the head, with the text of the file inside', '<script>/* /v/a"b- -&gt; &lt;c.js */</script>'],
  ] as const)('are written anew where a script goes: %s', (placement, where, tag) => {
    expect(markup([{ kind: 'script', script: 'count', placement }]).split('\n')).toEqual([
      '<!-- tags that are there already, in every document -->',
      `<!-- ${where}, instead of the tag of /v/a"b- -&gt; &lt;c.js (index.html:5) -->`,
      tag,
    ]);
  });

  it('are named where a link goes, and not where nothing changes', () => {
    const drop: Decision = { kind: 'drop link', rel: 'preload', address: '/old.woff2' };
    expect(markup([drop])).toContain('<!-- leave out the preload of /old.woff2 (index.html:7) -->');
    expect(markup([{ kind: 'script', script: 'count', placement: 'blocking' }])).toBe('');
  });
});

describe('markup', () => {
  it('has a link for each file of a hint, with all that it says', () => {
    const text = textOf(
      'markup',
      [
        hint({ kind: 'modulepreload', target: dialog, priority: 'low' }),
        hint({ kind: 'preload', target: { kind: 'asset', address: '/a pic".jpg' }, media: { maxWidth: 600 } }),
        hint({ kind: 'preconnect', target: { kind: 'origin', origin: 'https://x.example' } }),
        hint({ kind: 'fetch priority', target: { kind: 'asset', address: '/a pic".jpg' }, priority: 'high' }),
      ],
      MAP,
    );
    expect(text.split('\n')).toEqual([
      '<!-- / -->',
      '<link rel="preconnect" href="https://x.example" crossorigin>',
      '<!-- on the tag of /a pic".jpg: fetchpriority="high" -->',
      '',
      '<!-- /, at the end of the head -->',
      '<link rel="modulepreload" href="/app/assets/dialog-1f.js" fetchpriority="low">',
      '<link rel="preload" href="/a%20pic%22.jpg" as="image" media="(max-width: 600px)">',
    ]);
  });

  it('has named stand-ins where no file is known, and says so at the top', () => {
    const text = textOf('markup', [hint({ kind: 'prefetch', target: dialog })]);
    expect(text).toContain('<link rel="prefetch" href="{{dialog}}">');
    expect(text.split('\n')[0]).toMatch(/^<!-- .*replace each/);
  });

  it('leaves out what the plan can’t do here, and priorities of tags that a route doesn’t have', () => {
    const pic = { kind: 'asset', address: '/a pic".jpg' } as const;
    const text = textOf('markup', [
      hint({ kind: 'prefetch', target: { kind: 'split point', module: 'gone' } }),
      hint({ kind: 'fetch priority', target: pic, priority: 'high', routes: [] }),
    ]);
    expect(text.match(/fetchpriority/g)).toHaveLength(1);
    expect(text).not.toContain('prefetch');
    const rule = hint({ kind: 'prefetch document', target: { kind: 'route', pattern: '/gone' } });
    expect(textOf('speculation-rules', [rule])).toBe('');
    const trigger: Decision = { kind: 'trigger', splitPoint: 'src/parts/tide-chart', fetch: { on: 'idle' } };
    expect(textOf('triggers', [trigger])).toBe('');
  });

  it('can’t be broken out of by a name', () => {
    const evil = sketch(
      { main: { imports: ['home'] }, home: {} },
      {
        routes: [
          route('/--><script>', 'home', { content: [{ ...image, id: 'x', address: '/"><b>', foundIn: 'document' }] }),
        ],
      },
    );
    const target = { kind: 'asset', address: '/"><b>' } as const;
    const plan = { ...BASELINE, decisions: [hint({ kind: 'preload', target, routes: ['/--><script>'] })] };
    const text = handoff(evil, plan, null).artefacts[0].text;
    expect(text).not.toContain('<script>');
    expect(text).not.toContain('<b>');
  });
});

describe('headers', () => {
  it('are Link fields, early ones under their status', () => {
    const decisions = [
      hint({ kind: 'preload', target: dialog, place: 'header' }),
      hint({ kind: 'modulepreload', target: dialog, place: 'early' }),
    ];
    expect(textOf('headers', decisions, MAP)).toBe(
      '# /\nLink: </app/assets/dialog-1f.js>; rel=preload; as=script; crossorigin',
    );
    expect(textOf('early-hints', decisions, MAP)).toBe(
      '# /\nHTTP/1.1 103 Early Hints\nLink: </app/assets/dialog-1f.js>; rel=modulepreload',
    );
    expect(textOf('headers', [])).toBe('');
    const spared = hint({ kind: 'prefetch', target: dialog, place: 'header', notForDataSaver: true });
    expect(textOf('headers', [spared], MAP).split('\n').slice(1)).toEqual([
      '# unless the request says Save-Data: on',
      'Link: </app/assets/dialog-1f.js>; rel=prefetch',
    ]);
    expect(textOf('hint-script', [spared], MAP)).toBe('');
  });
});

describe('speculation rules', () => {
  it('match the routes’ links, as eager as the plan says', () => {
    const target = { kind: 'route', pattern: '/list/:id' } as const;
    const text = textOf('speculation-rules', [
      hint({ kind: 'prefetch document', target }),
      hint({ kind: 'prepare document', target, on: { on: 'approach' } }),
    ]);
    expect(JSON.parse(text)).toEqual({
      '/': {
        prefetch: [{ where: { href_matches: '/list/:id' }, eagerness: 'immediate' }],
        prerender: [{ where: { href_matches: '/list/:id' }, eagerness: 'moderate' }],
      },
    });
  });
});

describe('scripts', () => {
  it('add what markup can’t say: triggers, and nothing for data savers', () => {
    const target = { kind: 'route', pattern: '/list/:id' } as const;
    const text = textOf('hint-script', [
      hint({ kind: 'prefetch', target: dialog, place: 'script', on: { on: 'idle' }, notForDataSaver: true }),
      hint({ kind: 'modulepreload', target, place: 'script', on: { on: 'approach' } }),
      hint({ kind: 'prefetch', target: dialog, notForDataSaver: true, routes: ['/list/:id'] }),
    ]);
    expect(text).toContain('if (!savesData()) whenIdle(() => addLink({"rel":"prefetch","href":"{{dialog}}"}));');
    expect(text).toContain('onApproach("a[href^=\\"/list/\\"]"');
    expect(text).toContain('"/list/:id": () => {');
    expect(textOf('markup', [hint({ kind: 'prefetch', target: dialog, notForDataSaver: true })])).toBe('');
  });

  it('begin imports when the plan says, and are valid modules', () => {
    const text = textOf('triggers', [
      { kind: 'trigger', splitPoint: 'dialog', fetch: { on: 'visible' } },
      { kind: 'trigger', splitPoint: 'list', fetch: { on: 'after', ms: 900 } },
      { kind: 'trigger', splitPoint: 'home', fetch: { on: 'action' } },
    ]);
    expect(text).toContain('export const loadDialog = () => import("./dialog");');
    expect(text).toContain('whenVisible("[data-leads-to=\\"dialog\\"]", loadDialog);');
    expect(text).toContain('setTimeout(loadList, 900);');
    expect(text).not.toContain('loadHome');
    expect(() => new Function(text.replace(/^export /gm, '').replace(/\bimport\(/g, 'String('))).not.toThrow();
  });
});

describe('tables and the report', () => {
  const detach: Decision = { kind: 'detach', import: 'home::src/parts/tide-chart' };
  const plan: Plan = { name: 'Le*n', description: '', decisions: [detach, { kind: 'detach', import: 'home::gone' }] };
  const { artefacts: given, ways, standIns } = handoff(app, plan, MAP);
  const artefacts = [...given, ...review(app, plan, DEFAULT_CONDITIONS)];
  const text = (kind: ArtefactKind) => artefacts.find((a) => a.kind === kind)!.text;

  it('a manifest covers every module that travels, once', () => {
    const manifest = JSON.parse(text('manifest'));
    const modules = Object.values<{ modules: string[] }>(manifest.files).flatMap((f) => f.modules);
    expect([...modules].sort()).toEqual(app.modules.map((m) => m.path).sort());
    expect(manifest.splitPoints['src/parts/tide-chart'].files).toEqual(['{{tide-chart}}']);
    expect(manifest.splitPoints.dialog.files).toEqual(['/app/assets/dialog-1f.js']);
    expect(manifest.routes['/'].page).toBe('home');
    expect(standIns).toContain('{{tide-chart}}');
  });

  it('figures are those that the stations show', () => {
    const [head, first] = text('csv').split('\r\n');
    const at = head.split(',').indexOf('interactive with the plan');
    const { interactive } = predict(app, plan, '/', DEFAULT_CONDITIONS).reading.milestones;
    expect(Number(first.split(',')[at])).toBeCloseTo(interactive, 0);
  });

  it('a report and the figures have what was rehearsed, of the landings where anything was', () => {
    const seen = (ms: number) => ({ ms, words: `${ms} ± 9 ms` });
    const both = { before: seen(1200), after: seen(900) };
    const rehearsed = [{ pattern: '/', firstContent: { before: null, after: seen(500.04) }, interactive: both }];
    const of = (kind: string) => review(app, plan, DEFAULT_CONDITIONS, rehearsed).find((a) => a.kind === kind)!.text;
    expect(of('report')).toContain(
      '## Rehearsed in a browser\n\n| landing on | first content | interactive |\n|---|---|---|\n| / | not rehearsed → **500.04 ± 9 ms** | 1200 ± 9 ms → **900 ± 9 ms** |\n',
    );
    const [head, first, ...others] = of('csv')
      .trim()
      .split('\r\n')
      .map((l) => l.split(','));
    const at = head.indexOf('firstContent rehearsed as built');
    expect(head.slice(at)).toEqual([
      ...['firstContent rehearsed as built', 'firstContent rehearsed with the plan'],
      ...['interactive rehearsed as built', 'interactive rehearsed with the plan'],
    ]);
    expect(first.slice(at)).toEqual(['', '500', '1200', '900']);
    for (const line of others) expect(line.slice(at)).toEqual(['', '', '', '']);
    expect(text('csv')).not.toContain('rehearsed');
    expect(text('report')).not.toContain('ehearsed');
  });

  it('a report has each decision by the way it ships, with its lines, and those without effect', () => {
    const report = text('report');
    expect(report).toContain('# Le\\*n');
    expect(report).toContain('### By source edit\n\n- detach tide-chart from home\n  - `home:');
    expect(report).toContain('### Without effect here');
    expect(report).toMatch(/\| \/ \| .* → \*\*/);
    expect(ways.map((w) => w.by)).toEqual(['source edit']);
  });
});

it('refuses a map that names no files, telling the entry', () => {
  expect(readFileMap('{"a":"b.js"}', 'map.json')).toEqual({ a: 'b.js' });
  expect(() => readFileMap('{}', 'map.json')).toThrow('An empty map');
  expect(() => readFileMap('{"src/a.ts":3}', 'map.json')).toThrow('src/a.ts');
});

describe('files to deploy', () => {
  it('are those of the plan beside those as built', () => {
    const text = textOf('deploy', [
      { kind: 'detach', module: 'src/parts/tide-chart' },
      { kind: 'join', module: 'dialog' },
    ]);
    const lines = text.split('\n').filter((l) => !l.startsWith('#'));
    const states = lines.map((l) => [l.slice(0, 10).trim(), /\{\{(.+?)\}\}/.exec(l)?.[1]]);
    expect(states).toEqual([
      ['new', 'tide-chart'],
      ['changed', 'home'],
      ['gone', 'dialog'],
      ['as it is', 'entry'],
      ['as it is', 'list'],
    ]);
    expect(text).toContain('# Served under /app/');
    expect(text).toContain('# 1 new, 1 changed, 1 gone, 2 as it is');
    expect(text).toContain('stand for files of the build');
    expect(textOf('deploy', [], MAP)).toMatch(/as it is +[\d.]+ kB {2}\/app\/assets\/dialog-1f\.js {2}\(own code\)/);
  });
});
