import path from 'node:path';
import { planned } from '../../core/chunks/planned.ts';
import { BASELINE } from '../../core/plan/types.ts';
import { predict } from '../../core/predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../../core/sim/conditions.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

describe('routes by folders', () => {
  it('have the layouts around them, with groups, variables and rests in the address', () => {
    const { snapshot } = readSource(
      folderOf({
        'src/app/layout.tsx': 'export default () => null;',
        'src/app/page.tsx': 'export default () => null;',
        'src/app/(shop)/layout.tsx': 'export default () => null;',
        'src/app/(shop)/items/[id]/page.tsx': 'export default () => null;',
        'src/app/docs/[...path]/page.js': 'export default () => null;',
        'src/app/_parts/page.tsx': 'export default () => null;',
        'src/app/empty/readme.md': '',
      }),
    );
    expect(snapshot.routes.map((r) => [r.pattern, r.layouts, r.rendering])).toEqual([
      ['/', ['src/app/layout.tsx'], 'server'],
      ['/docs/*path', ['src/app/layout.tsx'], 'server'],
      ['/items/:id', ['src/app/layout.tsx', 'src/app/(shop)/layout.tsx'], 'server'],
    ]);
    expect(snapshot.entries).toEqual([
      { realm: 'site', kind: 'document', document: null, modules: ['src/app/layout.tsx'] },
    ]);
  });

  it('ship only what is marked as client code, and what that imports', () => {
    const { snapshot } = readSource(
      folderOf({
        'app/page.tsx':
          "import db from 'database';\nimport { Chart } from './chart';\nimport { words } from './words';\nimport fs from 'node:fs';\nexport default () => [db, words, fs, Chart];",
        'app/chart.tsx': "'use client';\nimport { scale } from './scale';\nexport const Chart = () => scale;",
        'app/scale.ts': "export const scale = 'a rather long text that must be shipped to the browser';",
        'app/words.ts': "export const words = 'only the server says this';",
        'node_modules/database/package.json': '{ "name": "database", "main": "index.js" }',
        'node_modules/database/index.js': 'module.exports = 1;',
      }),
    );
    const weight = new Map(snapshot.modules.map((m) => [m.path, m.bytes.minified]));
    expect([...weight.keys()]).toEqual(['app/chart.tsx', 'app/page.tsx', 'app/scale.ts', 'app/words.ts']);
    expect(weight.get('app/words.ts')).toBe(0);
    expect(weight.get('app/scale.ts')).toBeGreaterThan(40);
    expect(snapshot.unresolved).toEqual([]);
  });

  it('that stand for one address twice count once, and are told', () => {
    const { snapshot } = readSource(
      folderOf({
        'app/(a)/x/page.tsx': 'export default () => 1;',
        'app/(b)/x/page.tsx': 'export default () => 2;',
      }),
    );
    expect(snapshot.routes.map((r) => r.page)).toEqual(['app/(a)/x/page.tsx']);
    expect(snapshot.failed).toEqual([
      {
        path: 'app/(b)/x/page.tsx',
        line: 1,
        message: 'the route /x is there twice, here and in app/(a)/x/page.tsx; the first one counts',
      },
    ]);
  });

  it('are predicted even where no layout is around all of them', () => {
    const { snapshot } = readSource(
      folderOf({ 'app/a/page.tsx': 'export default () => 1;', 'app/b/page.tsx': 'export default () => 2;' }),
    );
    const { reading, timeline } = predict(snapshot, BASELINE, '/a', DEFAULT_CONDITIONS);
    expect(timeline.requests.map((r) => r.name)).toEqual(['document', 'a page']);
    expect(reading.milestones.interactive).toBeGreaterThan(0);
  });
});

describe('this repository', () => {
  const { snapshot } = readSource(path.resolve('.'));

  it('is read with its packages, its worker and its client code', () => {
    expect(snapshot.failed).toEqual([]);
    expect(snapshot.unresolved.filter((u) => !u.leftOut)).toEqual([]);
    expect(snapshot.routes.map((r) => r.pattern)).toEqual(['/', '/p/:project/:station']);
    expect(snapshot.entries.map((e) => e.realm)).toEqual([
      'site',
      'worker src/worker/pack.worker.ts',
      'worker src/worker/measure.worker.ts',
      'worker src/worker/analyst.worker.ts',
    ]);
    const weight = new Map(snapshot.modules.map((m) => [m.path, m.bytes.minified]));
    expect(weight.get('src/ui/frame/workbench.tsx')).toBeGreaterThan(500);
    expect(weight.get('src/store/database.ts')).toBe(0);
    expect(snapshot.packages.map((p) => p.name)).toEqual(expect.arrayContaining(['zustand', 'd3-scale', 'sonner']));
    expect(snapshot.modules.some((m) => m.package === 'better-sqlite3')).toBe(false);
  });

  it('keeps the simulator in the worker and off the page', () => {
    const graph = planned(snapshot, BASELINE).graph;
    const holds = (realm: string, file: string) =>
      graph.roots.some((r) => r.realm === realm && [...r.need].some((m) => snapshot.modules[m].path === file));
    expect(holds('worker src/worker/analyst.worker.ts', 'src/core/sim/simulate.ts')).toBe(true);
    expect(holds('site', 'src/core/sim/parser.ts')).toBe(false);
  });
});
