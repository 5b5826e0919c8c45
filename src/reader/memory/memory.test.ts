import fs from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { seeded } from '../../core/sim/random.ts';
import { built } from '../../test-support/built.ts';
import { folderOf, removeFolders, SAMPLE } from '../../test-support/folders.ts';
import { KeptReading } from '../process/kept-reading.ts';
import { runReading } from '../process/run-reading.ts';
import { readSource } from '../read-source.ts';
import { DiskMemory } from './disk-memory.ts';
import { FilesMemory } from './files-memory.ts';
import { digestOf, rememberWith } from './memory.ts';
import { memoryFolder } from './memory-folder.ts';
import { ReadingsMemory } from './readings-memory.ts';
import { remembering } from './remembering.ts';

afterAll(removeFolders);
// What is laid beside each other here begins from cold.
beforeAll(() => void rememberWith(null));
afterEach(() => void rememberWith(null));

const SCRIPT = built('reader/process/reading-process.js');

/** All of a reading but how long it took, in the order in which it stands. */
const written = ({ snapshot, texts, sources }: Awaited<ReturnType<KeptReading['read']>>) =>
  JSON.stringify({ snapshot, texts, sources });

/** What a reading in this process comes to, or why it refuses. */
function outcomeOf(folder: string): string {
  try {
    return written(readSource(folder));
  } catch (error) {
    return String(error);
  }
}

function firstDifference(warm: string, cold: string): string {
  let at = 0;
  while (warm[at] === cold[at]) at++;
  const around = (text: string) => text.slice(Math.max(0, at - 60), at + 60);
  return `${around(warm)}, cold: ${around(cold)}`;
}

const STYLES = path.resolve('examples/styles');
const copied = (from: string) => {
  const folder = path.join(folderOf({}), 'app');
  fs.cpSync(from, folder, { recursive: true });
  return folder;
};

/** Own files of an app that can be changed. */
function filesOf(folder: string): string[] {
  return (fs.readdirSync(folder, { recursive: true }) as string[])
    .filter((f) => /\.(tsx?|jsx?|vue|svelte|css|scss|html|json|astro)$/.test(f) && !f.includes('node_modules'))
    .sort();
}

/** Changes something of an app as people and tools do while they work, broken states among them. */
function change(folder: string, rand: () => number): string {
  const files = filesOf(folder);
  const some = () => files[Math.floor(rand() * files.length)];
  const file = path.join(folder, some());
  const text = fs.readFileSync(file, 'utf8');
  const other = path.join(folder, some());
  const lines = text.split('\n');
  const at = Math.floor(rand() * lines.length);
  const kinds: [string, () => void][] = [
    ['a line more', () => fs.writeFileSync(file, [...lines.slice(0, at), '', ...lines.slice(at)].join('\n'))],
    ['a line less', () => fs.writeFileSync(file, lines.filter((_, i) => i !== at).join('\n'))],
    ['code at the end', () => fs.writeFileSync(file, `${text}\nglobalThis.n${Math.floor(rand() * 1e6)} = 1;\n`)],
    ['cut off', () => fs.writeFileSync(file, text.slice(0, Math.floor(rand() * text.length)))],
    ['text of another', () => fs.writeFileSync(file, fs.readFileSync(other, 'utf8'))],
    ['gone', () => fs.rmSync(file)],
    ['renamed', () => fs.renameSync(file, file.replace(/(\.\w+)$/, `${Math.floor(rand() * 9)}$1`))],
    ['one import', () => fs.writeFileSync(file, `import '${relative(file, other)}';\n${text}`)],
    ['one deferred', () => fs.writeFileSync(file, `${text}\nimport('${relative(file, other)}');\n`)],
  ];
  const [what, doIt] = kinds[Math.floor(rand() * kinds.length)];
  doIt();
  return `${what}: ${path.relative(folder, file)}`;
}

const relative = (from: string, to: string) => `./${path.relative(path.dirname(from), to).replaceAll(path.sep, '/')}`;

const work = (folder: string) =>
  ({ folder, as: 'sources', base: null, workspace: null, starts: [], corrected: [] }) as ConstructorParameters<
    typeof KeptReading
  >[0];

describe('a reading that remembers', () => {
  const apps = [SAMPLE, ...fs.readdirSync(STYLES).map((s) => path.join(STYLES, s))].filter((f) =>
    fs.statSync(f).isDirectory(),
  );

  it.each(apps.map((a) => [path.basename(a), a] as const))(
    'gives after each change what a cold one gives, to the letter: %s',
    (name, app) => {
      const folder = copied(app);
      const rand = seeded([...name].reduce((sum, c) => sum * 31 + c.charCodeAt(0), 7) >>> 0);
      // What was changed so little ago counts as settled, so that files aren't opened again here either.
      const memory = new ReadingsMemory(null, new FilesMemory(20));
      const done: string[] = [];
      for (let n = 0; n < (app === SAMPLE ? 2 : 8); n++) {
        rememberWith(memory);
        const warm = outcomeOf(folder);
        memory.settle();
        rememberWith(null);
        const cold = outcomeOf(folder);
        if (warm !== cold) throw new Error(`after ${done.join(', ')}: ${firstDifference(warm, cold)}`);
        done.push(change(folder, rand));
      }
    },
  );

  it('shares what it found with others through the disk, and does without a file that is broken', async () => {
    const folder = copied(path.join(STYLES, fs.readdirSync(STYLES).sort()[0]));
    const where = path.join(folderOf({}), 'readings');
    const cold = written(readSource(folder));
    for (let n = 0; n < 2; n++) {
      const memory = DiskMemory.open(where)!;
      let made = 0;
      const counted = {
        recall: (k: string) => memory.recall(k),
        keep: (k: string, v: unknown) => memory.keep(k, ++made && v),
        digest: digestOf,
        files: null,
        foresee: null,
      };
      rememberWith(counted);
      expect(written(readSource(folder))).toBe(cold);
      memory.settle();
      memory.close();
      if (n === 1) expect(made).toBe(0);
      else expect(made).toBeGreaterThan(10);
    }
    rememberWith(null);
    const [file] = fs.readdirSync(where).filter((f) => f.endsWith('.sqlite'));
    fs.writeFileSync(path.join(where, file), 'no database');
    const work = { folder, as: 'sources', base: null, workspace: null, starts: [], corrected: [] } as const;
    const { done } = runReading({ ...work, starts: [], corrected: [] }, SCRIPT, { memory: where });
    expect(written(await done)).toBe(cold);
  });

  it('gives the same where threads read ahead, a file that breaks them among the scripts', async () => {
    const names = Array.from({ length: 450 }, (_, i) => `src/m${i}.jsx`);
    const at = (i: number) => `./m${i % 450}.jsx`;
    const files = Object.fromEntries(
      names.map((n, i) => [
        n,
        [
          `import '${at(i * 7 + 1)}';`,
          `import { one${(i * 5 + 2) % 450} as one } from '${at(i * 5 + 2)}';`,
          // Some pass on what others define, and some are no modules.
          i % 4 === 0 ? `export * from '${at(i * 3 + 1)}';` : '',
          i % 25 === 7 ? `import old from './old.cjs';\nold(${i});` : '',
          `export const one${i} = ${i};\nexport function two${i}() { return one + '${'x'.repeat(i % 60)}'; }`,
          `export default () => <p>{import('${at(i * 11)}')}${i}</p>;\n`,
        ].join('\n'),
      ]),
    );
    const folder = folderOf({
      'index.html': '<script type="module" src="/src/m0.jsx"></script>',
      'package.json': '{ "name": "many" }',
      ...files,
      'src/old.cjs': 'exports.unused = 1;\nmodule.exports = function (n) { console.log(n); };\n',
      'src/m9.jsx': 'export default (((',
      'src/m10.vue': '<template><p>{{ n }}</p></template><script setup>const n = 1;</script>',
      'src/m11.jsx': "import V from './m10.vue';\nexport default V;\n",
    });
    const { done } = runReading({ ...work(folder) }, SCRIPT);
    expect(written(await done)).toBe(written(readSource(folder)));
  });

  it('blames the file that ended the reading, though a thread was at it and the reading at another', async () => {
    const count = 450;
    const folder = folderOf({
      'index.html': '<script type="module" src="/src/m0.jsx"></script>',
      'package.json': '{ "name": "many" }',
      // Threads come to it first, the reading last.
      'src/a.jsx': `x = ${'('.repeat(100_000)}1${')'.repeat(100_000)}`,
      ...Object.fromEntries(
        Array.from({ length: count }, (_, i) => [
          `src/m${i}.jsx`,
          `import '${i + 1 < count ? `./m${i + 1}.jsx` : './a.jsx'}';\nexport default () => <p>${i}</p>;\n`,
        ]),
      ),
    });
    const { snapshot } = await runReading(work(folder), SCRIPT).done;
    expect(snapshot.failed.map((f) => f.path)).toEqual(['src/a.jsx']);
    expect(snapshot.modules.length).toBe(count + 1);
  });

  it('is used by one reading and no other, also where that fails, and is there for the next one', () => {
    const app = copied(path.join(STYLES, 'react-parts'));
    const cold = written(readSource(app));
    const own = new ReadingsMemory(null);
    rememberWith(own);
    const where = folderOf({});
    expect(remembering(where, () => written(readSource(app)))).toBe(cold);
    expect(rememberWith(own)).toBe(own);
    const fails = () => {
      throw new Error('no such app');
    };
    expect(() => remembering(where, fails)).toThrow('no such app');
    expect(rememberWith(null)).toBe(own);
    expect(own.recall('anything')).toBeUndefined();
    const [file] = fs.readdirSync(where).filter((f) => f.endsWith('.sqlite'));
    const known = new Database(path.join(where, file), { readonly: true });
    expect(known.prepare('SELECT count(*) FROM known').pluck().get()).toBeGreaterThan(20);
    known.close();
    expect(remembering(where, () => written(readSource(app)))).toBe(cold);
  });

  it('forgets what nobody needs any more', () => {
    const where = folderOf({});
    const day = 86_400_000;
    const at = (days: number) => DiskMemory.open(where, days * day)!;
    const first = at(1000);
    first.keep('a', 1);
    first.keep('b', new Map([['x', new Set([2])]]));
    first.settle();
    first.close();
    const second = at(1020);
    expect(second.recall('b')).toEqual(new Map([['x', new Set([2])]]));
    second.settle();
    second.close();
    const third = at(1040);
    third.settle();
    expect([third.recall('a'), third.recall('b')]).toEqual([undefined, new Map([['x', new Set([2])]])]);
    third.close();
  });

  it('keeps its file where the system keeps such files, unless it is told otherwise', () => {
    expect(memoryFolder(null, { YOKELINE_READING_CACHE: 'off' })).toBeNull();
    expect(memoryFolder('/data/readings', {})).toBe('/data/readings');
    expect(memoryFolder('/data/readings', { YOKELINE_READING_CACHE: '/else' })).toBe(path.resolve('/else'));
    expect(memoryFolder(null, { XDG_CACHE_HOME: '/caches' })).toBe(path.join('/caches', 'yokeline'));
  });
});

describe('a folder that is kept in step', () => {
  it('is read as by a cold reading after each change, broken states and refusals among them', async () => {
    const folder = copied(path.join(STYLES, 'react-parts'));
    const kept = new KeptReading(work(folder), SCRIPT, null);
    const rand = seeded(5);
    for (let n = 0; n < 6; n++) {
      expect(await kept.read().then(written, String)).toBe(outcomeOf(folder));
      change(folder, rand);
    }
    fs.writeFileSync(path.join(folder, 'yokeline.app.json'), '{ broken');
    await expect(kept.read()).rejects.toMatchObject({ name: 'InputError' });
    fs.rmSync(path.join(folder, 'yokeline.app.json'));
    expect(await kept.read().then(written, String)).toBe(outcomeOf(folder));
    kept.close();
  });

  it('is read on where its process ends over a file', async () => {
    const folder = folderOf({
      'index.html': '<script type="module" src="/main.js"></script>',
      'main.js': "import './good.js';\nimport './bad.js';\n",
      'good.js': 'console.log("good");\n',
      'bad.js': '',
    });
    const kept = new KeptReading(work(folder), SCRIPT, null);
    expect((await kept.read()).snapshot.failed).toEqual([]);
    fs.writeFileSync(path.join(folder, 'bad.js'), `x = ${'('.repeat(100_000)}1${')'.repeat(100_000)}`);
    const { snapshot } = await kept.read();
    expect(snapshot.failed.map((f) => f.path)).toEqual(['bad.js']);
    expect(snapshot.modules.map((m) => m.path)).toContain('good.js');
    fs.writeFileSync(path.join(folder, 'bad.js'), 'console.log(1)');
    expect((await kept.read()).snapshot.failed).toEqual([]);
    kept.close();
  });
});
