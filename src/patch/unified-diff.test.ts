import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import type { Plan } from '../core/plan/types.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { sketch } from '../test-support/snapshots.ts';
import { sourcePatch } from './patch.ts';
import { unifiedDiff } from './unified-diff.ts';

afterAll(removeFolders);

it.each(['a b.ts', 'a\nb.ts', 'a"b.ts', 'a\\b.ts', 'a\tb.ts', 'a\u0085b.ts', 'é/ü.ts', 'a\r.ts', '-.ts', '\u007f.ts'])(
  'git applies the diff of a file called %j, and of no other',
  (name) => {
    const folder = folderOf({ 'other.ts': 'other\n' });
    fs.mkdirSync(path.dirname(path.join(folder, name)), { recursive: true });
    fs.writeFileSync(path.join(folder, name), 'one\ntwo\n');
    execFileSync('git', ['apply', '-'], { cwd: folder, input: unifiedDiff(name, 'one\ntwo\n', 'one\nthree\n') });
    expect(fs.readFileSync(path.join(folder, name), 'utf8')).toBe('one\nthree\n');
    expect(fs.readFileSync(path.join(folder, 'other.ts'), 'utf8')).toBe('other\n');
  },
);

it.each([
  '../outside.tsx',
  'a/../../b.tsx',
  '/etc/a.tsx',
  'C:\\a.tsx',
  '.git/hooks/a.ts',
  'a/.GIT/b.ts',
  'a\\..\\..\\b.ts',
])('is not made for a file that leaves the folder: %s', (from) => {
  const text = "import { B } from 'b';\nexport const A = () => <B />;\n";
  const app = sketch({ [from]: { imports: ['b'] }, b: {} });
  const { start, end } = { start: 0, end: 22 };
  Object.assign(app.imports[0], { start, end, names: ['B'], line: 1 });
  const plan: Plan = { name: 'P', description: '', decisions: [{ kind: 'detach', import: `${from}::b` }] };
  const { diff, steps } = sourcePatch(app, plan, { [from]: text });
  expect(diff).toBe('');
  expect(steps).toMatchObject([{ state: 'by hand', what: expect.stringContaining('outside') }]);
});
