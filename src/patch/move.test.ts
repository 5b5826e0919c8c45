import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { planned } from '../core/chunks/planned.ts';
import type { Plan } from '../core/plan/types.ts';
import { shipped } from '../core/ship/shipped.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { readSource } from '../reader/read-source.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { sourcePatch } from './patch.ts';

afterAll(removeFolders);

const FILES = {
  'index.html': '<script type="module" src="/src/main.ts"></script>',
  'src/main.ts': "import './base.css';\nimport './crew/crew.css';\n\nimport('./crew/page');\nimport('./home');\n",
  'src/base.css': 'body { margin: 0 }',
  'src/crew/crew.css': '.duty { color: red }',
  'src/crew/page.ts': "import { rows } from '../rows';\n\ndocument.body.className = rows('duty');\n",
  'src/rows.ts': 'export const rows = (name: string) => name;\n',
  'src/home.ts': 'document.title = "home";\n',
};
const plan: Plan = {
  name: 'P',
  description: '',
  decisions: [{ kind: 'move', import: 'src/main.ts::./crew/crew.css', to: 'src/crew/page.ts' }],
};

const chunks = (of: Snapshot, by: Plan) =>
  planned(of, by)
    .graph.chunks.map((c) => [...c.modules].map((m) => of.modules[m].path).join(' '))
    .sort();

describe('an import of a sheet that moves', () => {
  it('goes from one file and is written into the other, as planned', () => {
    const folder = folderOf(FILES);
    const { snapshot, sources } = readSource(folder);
    expect(snapshot.sheetUses).toEqual([{ module: 'src/crew/crew.css', by: ['src/crew/page.ts'] }]);
    const { diff, steps } = sourcePatch(snapshot, plan, sources);
    expect(steps.map((s) => [s.path, s.state])).toEqual([
      ['src/main.ts', 'edited'],
      ['src/crew/page.ts', 'edited'],
    ]);
    execFileSync('git', ['apply', '-'], { cwd: folder, input: diff });
    expect(fs.readFileSync(path.join(folder, 'src/main.ts'), 'utf8')).not.toContain('crew.css');
    expect(fs.readFileSync(path.join(folder, 'src/crew/page.ts'), 'utf8')).toContain(
      "import { rows } from '../rows';\nimport './crew.css';\n",
    );
    const again = readSource(folder).snapshot;
    expect(chunks(again, { ...plan, decisions: [] })).toEqual(chunks(shipped(snapshot, plan).snapshot, plan));
  });

  it('is left alone in both where one of them has changed, or where the import gives names', () => {
    const folder = folderOf(FILES);
    const { snapshot, sources } = readSource(folder);
    const changed = sourcePatch(snapshot, plan, sources, (p) => (p === 'src/crew/page.ts' ? 'x' : sources[p]));
    expect(changed.diff).toBe('');
    expect(changed.steps).toMatchObject([{ path: 'src/crew/page.ts', state: 'refused' }]);
    const named = folderOf({
      ...FILES,
      'src/main.ts': "import names from './crew/crew.css';\nimport('./crew/page');\nconsole.log(names);\n",
    });
    const other = readSource(named);
    const { diff, steps } = sourcePatch(other.snapshot, plan, other.sources);
    expect(diff).toBe('');
    expect(steps.map((s) => s.state)).toEqual(['by hand', 'by hand']);
    expect(steps[1].recipe).toBe("import './crew.css';");
  });
});
