import fs from 'node:fs';
import path from 'node:path';
import { built } from '../../test-support/built.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readLimits } from '../limits.ts';
import { keepPackageTimes } from '../memory/package-memory.ts';
import { runReading } from './run-reading.ts';

afterAll(removeFolders);

/** As built: the tests of what other processes run are about the built files. */
const SCRIPT = built('reader/process/reading-process.js');

const APP = {
  'index.html': '<script type="module" src="/main.js"></script>',
  'package.json': '{ "name": "deep" }',
  'main.js': "import './good.js';\nimport './bad';\n",
  'good.js': 'console.log("good");\n',
};
const read = (files: Record<string, string>, limits = readLimits()) =>
  runReading(
    { folder: folderOf(files), as: 'tell by content', base: null, workspace: null, starts: [], corrected: [] },
    SCRIPT,
    { limits },
  ).done;

const N = 100_000;
const DEEP: [string, string, string][] = [
  ['parentheses', 'bad.js', `x = ${'('.repeat(N)}1${')'.repeat(N)}`],
  ['markup', 'bad.jsx', `x = ${'<a>'.repeat(N)}${'</a>'.repeat(N)}`],
  ['ternaries', 'bad.js', `x = ${'a ? b : '.repeat(N)}c`],
  ['else if', 'bad.js', `if (a) {}${' else if (a) {}'.repeat(N)}`],
  ['.then chains', 'bad.js', `p${'.then(f)'.repeat(N)}`],
  ['templates', 'bad.js', `x = ${'`${'.repeat(N)}1${'}`'.repeat(N)}`],
  ['blocks', 'bad.js', `${'{'.repeat(N)}${'}'.repeat(N)}`],
  ['nested rules', 'bad.css', `${'a{'.repeat(N)}color:red${'}'.repeat(N)}`],
  [':not(', 'bad.css', `${':not('.repeat(N)}a${')'.repeat(N)}{color:red}`],
  ['calc(', 'bad.css', `a{width:${'calc('.repeat(N)}1px${')'.repeat(N)}}`],
  ['@media', 'bad.css', `${'@media print{'.repeat(N)}a{color:red}${'}'.repeat(N)}`],
];

describe('a file that is nested too deeply', () => {
  it.each(DEEP)('is listed, and the rest of the app is read: %s', async (_, name, text) => {
    const main = `import './good.js';\nimport './${name}';\n`;
    const { snapshot } = await read({ ...APP, 'main.js': main, [name]: text });
    expect(snapshot.modules.map((m) => m.path)).toEqual(expect.arrayContaining(['good.js', 'main.js']));
    const said = snapshot.failed.filter((f) => f.path === name).map((f) => f.message);
    // What can be followed all the same needn't be listed.
    if (said.length === 0) expect(snapshot.modules.find((m) => m.path === name)!.bytes.minified).toBeGreaterThan(0);
    else expect(said.join()).toMatch(/nested too deeply|more than \d+ s|not read/);
  });

  it('may be the HTML itself', async () => {
    const html = `${'<div>'.repeat(20_000)}<script type="module" src="/main.js"></script>`;
    const { snapshot } = await read({ ...APP, 'index.html': html, 'bad.js': '' });
    expect(snapshot.modules.map((m) => m.path)).toContain('good.js');
  });
});

describe('a reading', () => {
  it('that stands still is ended, names what it had begun, and leaves the file aside', async () => {
    // Long to be minified, and nothing else: the limit is what is tried.
    const slow = `export default [${'{a:1,b:[2,3],c:"d"},'.repeat(1_400_000)}];`;
    const limits = { ...readLimits(), idleMs: 2500 };
    const { snapshot } = await read({ ...APP, 'bad.js': slow }, limits);
    expect(snapshot.failed.find((f) => f.path === 'bad.js')?.message).toMatch(/more than 2.5 s/);
    expect(snapshot.modules.map((m) => m.path)).toContain('good.js');
  });

  it('that needs more memory than it may is told so, by the file that it had begun', async () => {
    const large = `export default [${'{a:1,b:[2,3],c:"d"},'.repeat(300_000)}];`;
    await expect(read({ ...APP, 'bad.js': large }, { ...readLimits(), memoryMB: 24 })).rejects.toMatchObject({
      title: 'The reading ended early',
      detail: expect.stringMatching(/more than 24 MB/),
    });
  });

  it('leaves out files that are too large, with the reason', async () => {
    const limits = { ...readLimits(), fileBytes: 1000 };
    const { snapshot } = await read({ ...APP, 'bad.js': `export default "${'x'.repeat(2000)}";` }, limits);
    expect(snapshot.failed.find((f) => f.path === 'bad.js')?.message).toMatch(/files up to 0.001 MB are read/);
  });

  it('reads nothing from outside of its folder, and no pipes or folders with the names of files', async () => {
    const secret = folderOf({ 'secret.js': 'export const secret = "the key of the harbour";' });
    const folder = folderOf({
      ...APP,
      'main.js': "import './good.js';\nimport './out.js';\nimport './page.html/x.js';\n",
    });
    fs.symlinkSync(path.join(secret, 'secret.js'), path.join(folder, 'out.js'));
    fs.symlinkSync(path.join(secret, 'secret.js'), path.join(folder, 'tsconfig.json'));
    fs.mkdirSync(path.join(folder, 'page.html'));
    const tried = runReading(
      { folder, as: 'sources', base: null, workspace: null, starts: [], corrected: [] },
      SCRIPT,
    ).done;
    await expect(tried).rejects.toMatchObject({ at: 'tsconfig.json', detail: expect.stringContaining('leads out of') });
    fs.rmSync(path.join(folder, 'tsconfig.json'));
    const { snapshot, texts } = await runReading(
      { folder, as: 'sources', base: null, workspace: null, starts: [], corrected: [] },
      SCRIPT,
    ).done;
    expect(JSON.stringify([snapshot, texts])).not.toContain('the key of the harbour');
    expect(snapshot.unresolved.map((u) => u.specifier)).toContain('./out.js');
    expect(JSON.stringify(snapshot)).not.toContain(folder);
  });

  it('ends when it is stopped', async () => {
    const reading = runReading(
      { folder: folderOf(APP), as: 'sources', base: null, workspace: null, starts: [], corrected: [] },
      SCRIPT,
    );
    reading.stop();
    const first = await Promise.race([
      reading.done.then(() => 'read'),
      new Promise((go) => setTimeout(go, 500, 'quiet')),
    ]);
    expect(first).toBe('quiet');
  });

  it('tells by the field what is wrong in a description', async () => {
    await expect(read({ ...APP, 'package.json': 'null' })).rejects.toMatchObject({ at: 'package.json' });
  });
});

it('is told what files of packages took in other apps on this machine', async () => {
  const memory = folderOf({});
  const folder = folderOf({
    ...APP,
    'main.js': "import { tide } from 'tides';\nconsole.log(tide);",
    'node_modules/tides/package.json': '{ "name": "tides", "version": "1.0.0", "main": "index.js" }',
    'node_modules/tides/index.js': "export const tide = 'high';",
  });
  const read = () =>
    runReading({ folder, as: 'sources', base: null, workspace: null, starts: [], corrected: [] }, SCRIPT, { memory })
      .done;
  const tides = async () => (await read()).snapshot.modules.find((m) => m.package === 'tides')!;
  const { bytes } = await tides();
  keepPackageTimes(memory, [{ name: 'tides', file: 'index.js', ms: 7, bytes: bytes.minified }], 1);
  expect(await tides()).toMatchObject({ elsewhereMs: 7 });
});
