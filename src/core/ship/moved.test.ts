import path from 'node:path';
import { route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { seeded } from '../sim/random.ts';
import { relativeAddress, withMoved } from './moved.ts';
import { shipped, troublesOf } from './shipped.ts';

const app = sketch(
  {
    'src/main': { imports: ['base.css', 'crew.css', '~src/crew/page', '~src/home'] },
    'base.css': { kind: 'style' },
    'crew.css': { kind: 'style' },
    'src/crew/page': { imports: ['page.css', 'src/grid'] },
    'page.css': { kind: 'style' },
    'src/grid': {},
    'src/home': {},
  },
  { routes: [route('/crew', 'src/crew/page'), route('/', 'src/home')] },
);
const plan: Plan = {
  ...BASELINE,
  decisions: [{ kind: 'move', import: 'src/main::crew.css', to: 'src/crew/page' }],
};

const stylesOf = (snapshot: typeof app, of: Plan, target: string) => {
  const graph = planned(snapshot, of).graph;
  const root = graph.roots.find((r) => snapshot.modules[r.target[0]].path === target)!;
  return [...root.need].map((m) => snapshot.modules[m].path).filter((p) => p.endsWith('.css'));
};

describe('an import of a sheet that is made elsewhere', () => {
  it('leaves the start of everybody and comes with the module that makes it, after its own', () => {
    const { snapshot, stale } = shipped(app, plan);
    expect(stale).toEqual([]);
    expect(stylesOf(app, BASELINE, 'src/main')).toEqual(['base.css', 'crew.css']);
    expect(stylesOf(snapshot, plan, 'src/main')).toEqual(['base.css']);
    const made = snapshot.imports.filter((i) => snapshot.modules[i.from].path === 'src/crew/page');
    expect(made.map((i) => snapshot.modules[i.to].path)).toEqual(['page.css', 'src/grid', 'crew.css']);
    expect(stylesOf(snapshot, plan, 'src/crew/page').sort()).toEqual(['crew.css', 'page.css']);
  });

  it('merely goes where it is made already', () => {
    const moved = withMoved(app, 'src/crew/page::page.css', 'src/main');
    const again = withMoved(moved as typeof app, 'src/main::base.css', 'src/home') as typeof app;
    expect(again.imports).toHaveLength(app.imports.length);
    const twice = sketch({ a: { imports: ['s', 'b'] }, b: { imports: ['s'] }, s: { kind: 'style' } });
    expect((withMoved(twice, 'a::s', 'b') as typeof app).imports.map((i) => i.specifier)).toEqual(['b', 's']);
  });

  it('is made after the last import of who makes it, or at the end where that makes none', () => {
    const order = (to: string, key = 'src/main::crew.css') => {
      const moved = withMoved(app, key, to) as typeof app;
      return moved.imports.map((i) => `${moved.modules[i.from].path} ${moved.modules[i.to].path}`);
    };
    expect(order('src/home').at(-1)).toBe('src/home crew.css');
    const toPage = order('src/crew/page');
    expect(toPage.indexOf('src/crew/page crew.css')).toBe(toPage.indexOf('src/crew/page src/grid') + 1);
    // Others import after it.
    const toMain = order('src/main', 'src/crew/page::page.css');
    expect(toMain.indexOf('src/main page.css')).toBe(toMain.indexOf('src/main src/home') + 1);
  });

  it('is told apart from imports of the same address that are made there already', () => {
    const twin = sketch({
      main: { imports: ['./a.css', '~late'] },
      late: { imports: ['~./a.css'] },
      './a.css': { kind: 'style' },
    });
    const made = (withMoved(twin, 'main::./a.css', 'late') as typeof twin).imports.filter((i) => i.from === 1);
    expect(made.map((i) => [i.specifier, i.ordinal, i.kind])).toEqual([
      ['./a.css', 0, 'dynamic'],
      ['././a.css', 0, 'static'],
    ]);
    const same = { ...twin, modules: twin.modules.map((m) => ({ ...m, path: m.path.replace('./', '') })) };
    const again = (withMoved(same, 'main::./a.css', 'late') as typeof twin).imports.filter((i) => i.from === 1);
    expect(again.map((i) => [i.specifier, i.ordinal])).toEqual([
      ['./a.css', 0],
      ['./a.css', 1],
    ]);
  });

  it.each([
    ['src/main::gone.css', 'src/home', 'no import src/main::gone.css'],
    ['src/main::crew.css', 'src/gone', 'no module src/gone'],
    ['src/crew/page::src/grid', 'src/home', 'is no import of a style sheet'],
    ['src/main::src/home', 'src/home', 'is no import of a style sheet'],
    ['src/main::crew.css', 'base.css', 'base.css is no script'],
  ])('%s to %s is told as a trouble', (key, to, reason) => {
    const decisions: Plan['decisions'] = [{ kind: 'move', import: key, to }];
    expect(troublesOf(app, { ...BASELINE, decisions }).stale[0].reason).toContain(reason);
  });

  it.each([
    ['src/a.ts', 'src/b.css', './b.css'],
    ['src/a/x.ts', 'src/b/y.css', '../b/y.css'],
    ['a.ts', 'src/b.css', './src/b.css'],
    ['src/a/b/c.ts', 'd.css', '../../../d.css'],
  ])('from %s, %s is %s', (from, to, address) => expect(relativeAddress(from, to)).toBe(address));
});

it('addresses lead from one file to the other, whatever folders they share', () => {
  const next = seeded(3);
  const any = (end: string) =>
    Array.from({ length: 1 + Math.floor(next() * 4) }, () => 'ab'[Math.floor(next() * 2)]).join('/') + end;
  for (let run = 0; run < 500; run++) {
    const [from, to] = [any('.ts'), any('.css')];
    const address = relativeAddress(from, to);
    const shortest = path.posix.relative(path.posix.dirname(from), to);
    expect(address).toBe(shortest.startsWith('.') ? shortest : `./${shortest}`);
  }
});
