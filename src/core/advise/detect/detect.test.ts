import { ROUND } from '../../../test-support/programs.ts';
import { part, route, type Sketch, sketch } from '../../../test-support/snapshots.ts';
import { BASELINE, type Decision } from '../../plan/types.ts';
import type { ClassicScript } from '../../snapshot/document-types.ts';
import type { Route } from '../../snapshot/route-types.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import { candidatesOf } from '../advise.ts';
import type { CandidateFinding } from '../types.ts';
import { AnalysisContext } from './analysis-context.ts';
import { deferredFirstScreen, staircases } from './chain.ts';
import { keptBySharing, partsInStart, routeLeaks } from './code-in-start.ts';
import { scriptsInTheWay, smallFiles, unusedStyles } from './files.ts';
import { costlyHints } from './given-hints.ts';
import { dataAfterCode, foundLate, otherOrigins } from './late.ts';
import { onlyOnActs } from './on-acts.ts';
import { sheetsOfOthers } from './sheets.ts';

function detect(
  look: (analysis: AnalysisContext) => CandidateFinding[],
  modules: Record<string, Sketch>,
  routes: Route[],
  more: Partial<Snapshot> = {},
  decisions: Decision[] = [],
): CandidateFinding[] {
  return look(new AnalysisContext(sketch(modules, { routes, ...more }), { ...BASELINE, decisions }, ROUND));
}

const chat: ClassicScript = {
  id: 'chat',
  name: 'chat',
  address: 'https://talk.example/c.js',
  bytes: 9000,
  serverMs: 10,
  evaluationMs: 5,
  placement: 'blocking',
  evidence: { path: 'index.html', line: 4 },
};

describe('code in the start', () => {
  const modules: Record<string, Sketch> = {
    main: { imports: ['a', '~b', '~c'] },
    a: { imports: ['dialog', 'first', '~later'] },
    dialog: { bytes: 50_000 },
    first: {},
    later: { imports: ['chart'] },
    chart: { bytes: 60_000, package: 'chart' },
    b: { imports: ['level'] },
    level: { imports: ['chart'] },
    c: {},
  };
  const a = route('/a', 'a', {
    parts: [
      part('dialog', 'dialog', { place: 'action', action: 'ask', share: 0.1 }),
      part('first', 'first'),
      part('later', 'later', { place: 'below' }),
    ],
  });

  it('finds what only acts use, in starts and behind split points, unless somebody else there needs it', () => {
    const { snapshot } = new AnalysisContext(sketch(modules, { routes: [a, route('/b', 'b')] }), BASELINE, ROUND);
    const acted = (...froms: string[]): CandidateFinding[] => {
      const imports = snapshot.imports.map((i) =>
        froms.includes(`${snapshot.modules[i.from].path} ${i.specifier}`) ? { ...i, onActs: true as const } : i,
      );
      return onlyOnActs(new AnalysisContext({ ...snapshot, imports }, BASELINE, ROUND));
    };
    expect(acted()).toEqual([]);
    const [chart, ...none] = acted('later chart');
    expect(none).toEqual([]);
    expect(chart).toMatchObject({
      what: 'chart comes with later, though only acts use it',
      evidence: [{ from: 'later', to: 'chart', line: 1 }],
      routes: ['/a'],
    });
    expect(chart.remedies[0].decisions).toEqual([
      { kind: 'detach', import: 'later::chart' },
      { kind: 'trigger', splitPoint: 'chart', fetch: { on: 'idle' } },
    ]);
    expect(acted('a dialog', 'later chart', 'level chart').map((s) => [s.id, s.routes])).toEqual([
      ['acts dialog', ['/a', '/b']],
      ['acts chart in level', ['/b']],
      ['acts chart in later', ['/a']],
    ]);
    expect(acted('a first')).toEqual([]);
  });

  it('weighs all that an import carries, and tells what effects use from what acts use', () => {
    const { snapshot } = new AnalysisContext(
      sketch(
        {
          main: { imports: ['a', '~b'] },
          a: { imports: ['save', 'tick'] },
          // Light itself, and used at start by what it is used by; what it carries isn't.
          save: { bytes: 200, imports: ['heavy', 'light'] },
          heavy: { bytes: 70_000, package: 'heavy' },
          tick: { bytes: 20_000, imports: ['light'] },
          light: { bytes: 300 },
          b: {},
        },
        { routes: [route('/a', 'a'), route('/b', 'b')] },
      ),
      BASELINE,
      ROUND,
    );
    const marked = (marks: Record<string, 'onActs' | 'onEffects'>) =>
      onlyOnActs(
        new AnalysisContext(
          {
            ...snapshot,
            imports: snapshot.imports.map((i) => {
              const mark = marks[`${snapshot.modules[i.from].path} ${i.specifier}`];
              return mark ? { ...i, [mark]: true } : i;
            }),
          },
          BASELINE,
          ROUND,
        ),
      ).map(({ id, evidence, remedies }) => [
        id,
        evidence.map((e) => `${e.from} ${e.to}`),
        remedies[0].decisions.flatMap((d) => (d.kind === 'trigger' ? d.fetch.on : [])),
      ]);
    expect(marked({ 'a save': 'onActs' })).toEqual([['acts heavy', ['a save'], ['idle']]]);
    // Two that share something leave together.
    expect(marked({ 'a save': 'onActs', 'a tick': 'onActs' })).toEqual([
      ['acts heavy', ['a save', 'a tick'], ['idle', 'idle']],
    ]);
    expect(marked({ 'a save': 'onActs', 'a tick': 'onEffects' })).toEqual([
      ['acts heavy', ['a save'], ['idle']],
      ['effects heavy', ['a save', 'a tick'], ['after first paint', 'after first paint']],
    ]);
    expect(marked({ 'a tick': 'onEffects' })).toEqual([['effects tick', ['a tick'], ['after first paint']]]);
  });

  it('finds a page that another page imports', () => {
    const app: Record<string, Sketch> = {
      main: { imports: ['~one', '~two', '~three'] },
      one: { imports: ['words'] },
      words: { imports: ['two'] },
      two: { bytes: 40_000 },
      three: {},
    };
    const [leak, ...none] = detect(routeLeaks, app, [route('/1', 'one'), route('/2', 'two'), route('/3', 'three')]);
    expect(none).toEqual([]);
    expect(leak).toMatchObject({ routes: ['/1'], evidence: [{ from: 'words', to: 'two', line: 1 }] });
    expect(leak.why).toContain('Only /2 needs it');
  });

  it('finds parts that nobody sees at first, with the import that brings them', () => {
    const [found, ...none] = detect(partsInStart, modules, [a, route('/b', 'b')]);
    expect(none).toEqual([]);
    expect(found).toMatchObject({
      id: 'part dialog',
      evidence: [{ from: 'a', to: 'dialog', line: 1 }],
      routes: ['/a'],
    });
    expect(found.why).toContain('behind “ask”');
    expect(found.remedies.map((w) => w.decisions[1])).toEqual(
      ['action', 'approach', 'idle'].map((on) => ({ kind: 'trigger', splitPoint: 'dialog', fetch: { on } })),
    );
  });

  it('says what drawing takes of a part that is drawn with the landing, and whether somebody measured it', () => {
    const why = (more: Parameters<typeof part>[2]) =>
      detect(partsInStart, modules, [route('/a', 'a', { parts: [part('dialog', 'dialog', more)] })])[0].why;
    expect(why({ place: 'below', drawMs: 34.4 })).toMatch(/another 34 ms of the page’s thread, by a measurement\.$/);
    expect(why({ place: 'below' })).toMatch(/another \d+ ms of the page’s thread, estimated from its code\.$/);
    expect(why({ place: 'below', drawMs: 1 })).not.toContain('Drawing');
    expect(why({ place: 'action', action: 'ask', drawMs: 34 })).not.toContain('Drawing');
  });

  it('finds no part that comes later already', () => {
    const detach: Decision = { kind: 'detach', module: 'dialog' };
    expect(detect(partsInStart, modules, [a], {}, [detach])).toEqual([]);
  });

  it('finds a page that all routes start with, and says that its siblings are deferred', () => {
    const [leak] = detect(routeLeaks, modules, [a, route('/b', 'b'), route('/c', 'c')]);
    expect(leak).toMatchObject({ kind: 'route leak', routes: ['/b', '/c'] });
    expect(leak.why).toContain('forgotten');
    expect(leak.remedies.map((w) => w.decisions)).toEqual([[{ kind: 'detach', import: 'main::a' }]]);
  });

  it('finds what a deferred part needs and somebody else keeps in the start', () => {
    const kept = { ...modules, a: { imports: ['~later', 'level'] } };
    const [found] = detect(keptBySharing, kept, [a]);
    expect(found.what).toContain('chart stays in the start though later is deferred');
    expect(found.remedies[0].decisions.every((d) => d.kind === 'detach')).toBe(true);
    expect(detect(keptBySharing, modules, [a])).toEqual([]);
  });
});

it('nothing is cut in an output whose maps hold no sources', () => {
  const app = sketch(
    { main: { imports: ['a', '~b'] }, a: { bytes: 50_000 }, b: {} },
    { routes: [route('/a', 'a'), route('/b', 'b')] },
  );
  const kinds = (snapshot: Snapshot) => candidatesOf(new AnalysisContext(snapshot, BASELINE, ROUND)).map((s) => s.kind);
  expect(kinds(app)).toContain('route leak');
  expect(kinds({ ...app, output: { files: [], starts: [] } })).not.toContain('route leak');
});

describe('chains', () => {
  const stairs: Record<string, Sketch> = {
    main: { imports: ['~area'] },
    area: { imports: ['~section'] },
    section: { imports: ['~page'] },
    page: { imports: ['~tile', '~dialog'] },
    tile: {},
    dialog: {},
  };
  const deep = route('/x', 'page', {
    layouts: ['area', 'section'],
    parts: [part('tile', 'tile'), part('dialog', 'dialog', { place: 'action' })],
  });

  it('finds pieces that are asked for one after another, and would join all but the first', () => {
    const [found] = detect(staircases, stairs, [deep]);
    expect(found.evidence.map((b) => b.to)).toEqual(expect.arrayContaining(['area', 'section', 'page']));
    const [join, preload] = found.remedies;
    expect(join.decisions).not.toContainEqual({ kind: 'join', import: 'main::area' });
    expect(join.decisions).toContainEqual({ kind: 'join', import: 'section::page' });
    expect(preload.decisions[0]).toMatchObject({ kind: 'hint', hint: { target: { kind: 'route', pattern: '/x' } } });
  });

  it('finds no chain of one', () => {
    const flat = { main: { imports: ['~page'] }, page: {} };
    expect(detect(staircases, flat, [route('/x', 'page')])).toEqual([]);
  });

  it('finds parts of the first screen that were split off, not those behind an act', () => {
    const [found] = detect(deferredFirstScreen, stairs, [deep]);
    expect(found.remedies[0].decisions).toEqual([{ kind: 'join', import: 'page::tile' }]);
    expect(found.what).toBe('1 piece of the first screen of /x is deferred');
  });
});

describe('what is found late', () => {
  const modules: Record<string, Sketch> = {
    main: { imports: ['page'] },
    page: { imports: ['~hero', '~dialog'] },
    hero: {},
    dialog: {},
  };
  const picture = {
    id: 'pic',
    kind: 'image' as const,
    address: '/pic.jpg',
    bytes: 40_000,
    serverMs: 5,
    foundIn: { module: 'hero' },
    place: 'first screen' as const,
    lazy: false,
  };
  const home = route('/', 'page', {
    content: [picture],
    data: [{ id: 'prices', address: '/api/p', bytes: 900, serverMs: 40, module: 'dialog' }],
    parts: [part('hero', 'hero', { needs: ['pic'] }), part('dialog', 'dialog', { place: 'action', needs: ['prices'] })],
  });

  it('finds an image that a deferred part asks for, until a hint brings it', () => {
    const [found] = detect(foundLate, modules, [home]);
    expect(found.what).toBe('pic of / is found late');
    const [markup] = found.remedies;
    expect(detect(foundLate, modules, [home], {}, markup.decisions)).toEqual([]);
  });

  it('finds data that waits for the code of its own part, unless that is decided', () => {
    const [found] = detect(dataAfterCode, modules, [home]);
    expect(found.remedies[0].decisions).toEqual([{ kind: 'split', splitPoint: 'dialog', data: 'with the code' }]);
    expect(detect(dataAfterCode, modules, [home], {}, found.remedies[0].decisions)).toEqual([]);
    const beside = { ...home, data: [{ ...home.data[0], module: 'page' }] };
    expect(detect(dataAfterCode, modules, [beside])).toEqual([]);
  });

  it('finds a second origin in the start', () => {
    const late = { ...chat, placement: 'end of body' as const };
    const found = detect(otherOrigins, modules, [home], { scripts: [late] });
    expect(found[0]?.evidence).toEqual([{ from: 'index.html', to: chat.address, line: 4 }]);
    expect(found[0]?.remedies[0].decisions[0]).toMatchObject({
      hint: { kind: 'preconnect', target: { origin: 'https://talk.example' } },
    });
    expect(detect(otherOrigins, modules, [home])).toEqual([]);
    // A tag in the head is met as early as a link that would connect ahead for it.
    expect(detect(otherOrigins, modules, [home], { scripts: [chat] })).toEqual([]);
  });
});

describe('files', () => {
  const modules: Record<string, Sketch> = {
    main: { imports: ['main.css', '~a', '~b'] },
    'main.css': { kind: 'style', bytes: 4000 },
    a: { imports: ['tiny'] },
    b: { imports: ['tiny'] },
    tiny: { bytes: 200 },
  };
  const routes = [route('/a', 'a'), route('/b', 'b')];

  it('finds scripts in the head in each other place, and none that wait already', () => {
    const [found] = detect(scriptsInTheWay, modules, routes, { scripts: [chat] });
    expect(found.evidence).toEqual([{ from: 'index.html', to: chat.address, line: 4 }]);
    expect(found.remedies.map((w) => w.decisions[0])).toEqual(
      ['async', 'defer', 'after load'].map((placement) => ({ kind: 'script', script: 'chat', placement })),
    );
    expect(detect(scriptsInTheWay, modules, routes, { scripts: [{ ...chat, placement: 'after load' }] })).toEqual([]);
  });

  it('finds sheets with many rules that nothing can use, until they are trimmed', () => {
    const unusedRules = [{ module: 'main.css', line: 3, selector: '.x', bytes: 3000, missing: ['x'] }];
    const [found] = detect(unusedStyles, modules, routes, { unusedRules });
    expect(found.what).toBe('75 % of main.css can’t be used by anything');
    expect(detect(unusedStyles, modules, routes, { unusedRules }, found.remedies[0].decisions)).toEqual([]);
    expect(detect(unusedStyles, modules, routes, { unusedRules: [{ ...unusedRules[0], bytes: 100 }] })).toEqual([]);
  });

  it('finds shared files that are hardly worth a request, unless a least size is decided', () => {
    const [found] = detect(smallFiles, modules, routes);
    expect(found.remedies.map((w) => w.decisions[0])).toContainEqual({ kind: 'floor', bytes: 4000 });
    expect(detect(smallFiles, modules, routes, {}, [{ kind: 'floor', bytes: 100 }])).toEqual([]);
  });

  it('finds every hint of the plan, to be taken back', () => {
    const hint: Decision = {
      kind: 'hint',
      hint: { kind: 'prefetch', place: 'markup', target: { kind: 'route', pattern: '/b' }, routes: [] },
    };
    const [found] = detect(costlyHints, modules, routes, {}, [hint]);
    expect(found.routes).toEqual(['/a', '/b']);
    expect(found.remedies[0]).toMatchObject({ decisions: [], withdraw: [found.id] });
  });
});

describe('styles in the start of routes that don’t use them', () => {
  const modules: Record<string, Sketch> = {
    main: { imports: ['crew.css', 'base.css', '~crew', '~home'] },
    'crew.css': { kind: 'style', bytes: 3000 },
    'base.css': { kind: 'style', bytes: 3000 },
    crew: { imports: ['grid'] },
    grid: {},
    home: {},
  };
  const routes = [route('/crew', 'crew'), route('/', 'home')];
  const uses = (module: string, ...by: string[]) => ({ sheetUses: [{ module, by }] });

  it('are to be imported by their only user, or by the page of the only route', () => {
    const [alone] = detect(sheetsOfOthers, modules, routes, uses('crew.css', 'grid'));
    expect(alone).toMatchObject({
      id: 'sheet crew.css',
      routes: ['/'],
      evidence: [{ from: 'main', to: 'crew.css', line: 1 }],
      remedies: [{ decisions: [{ kind: 'move', import: 'main::crew.css', to: 'grid' }] }],
    });
    const [page] = detect(sheetsOfOthers, modules, routes, uses('crew.css', 'grid', 'crew'));
    expect(page.remedies[0].decisions).toEqual([{ kind: 'move', import: 'main::crew.css', to: 'crew' }]);
  });

  it('are fine where every route uses them, or nobody is known to', () => {
    expect(detect(sheetsOfOthers, modules, routes, uses('crew.css', 'main'))).toEqual([]);
    expect(detect(sheetsOfOthers, modules, routes, uses('crew.css', 'grid', 'home'))).toEqual([]);
    expect(detect(sheetsOfOthers, modules, routes, uses('gone.css', 'grid'))).toEqual([]);
    expect(detect(sheetsOfOthers, modules, routes)).toEqual([]);
  });
});
