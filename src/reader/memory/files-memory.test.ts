import fs from 'node:fs';
import path from 'node:path';
import { seeded } from '../../core/sim/random.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { bytesInside, readInside, sizedTextInside } from '../folder-files.ts';
import { FilesMemory } from './files-memory.ts';
import { rememberWith } from './memory.ts';
import { ReadingsMemory } from './readings-memory.ts';

afterAll(removeFolders);
let before: ReturnType<typeof rememberWith>;
beforeEach(() => {
  before = rememberWith(null);
});
afterEach(() => void rememberWith(before));

/** What reading a file comes to: its text and size, or why not. */
const outcome = (read: () => unknown) => {
  try {
    return read();
  } catch (error) {
    return String(error);
  }
};
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

describe('texts of files that readings remember', () => {
  it('are what is in the file now, however it was changed: written over, replaced, linked elsewhere, made a folder', async () => {
    const rand = seeded(24);
    const folder = fs.realpathSync(folderOf({ 'a/x.js': '1', 'a/y.js': '22', 'b/x.js': '333', 'b/y.js': '4' }));
    const outside = fs.realpathSync(folderOf({ 'x.js': 'not ours' }));
    const pick = <T>(some: readonly T[]) => some[Math.floor(rand() * some.length)];
    const memory = new ReadingsMemory(null, new FilesMemory(10));
    const NAMES = ['a/x.js', 'a/y.js', 'b/x.js', 'b/y.js', 'c/x.js'];
    let taken = 0;
    for (let n = 0; n < 120; n++) {
      const file = path.join(folder, pick(NAMES));
      const text = String(Math.floor(rand() * 1000));
      const place = () => {
        fs.mkdirSync(path.dirname(file), { recursive: true });
        fs.rmSync(file, { recursive: true, force: true });
      };
      const changes: (() => void)[] = [
        () => fs.writeFileSync(file, text),
        // Of the same size and time: only when the entry changed tells.
        () => {
          const { mtime, atime, size } = fs.statSync(file);
          fs.writeFileSync(file, text.padEnd(size).slice(0, size));
          fs.utimesSync(file, atime, mtime);
        },
        () => {
          fs.writeFileSync(`${file}.new`, text);
          fs.renameSync(`${file}.new`, file);
        },
        () => place(),
        () => {
          place();
          fs.symlinkSync(pick([path.join(folder, 'a/y.js'), path.join(outside, 'x.js')]), file);
        },
        () => {
          fs.rmSync(path.join(folder, 'c'), { recursive: true, force: true });
          fs.symlinkSync(pick(['a', 'b', outside]), path.join(folder, 'c'));
        },
        () => {
          place();
          fs.mkdirSync(file);
        },
      ];
      try {
        pick(changes)();
      } catch {
        // A change that isn't possible as things are.
      }
      await wait(14);
      rememberWith(memory);
      const warm = NAMES.map((name) => outcome(() => sizedTextInside(folder, name)));
      const sizes = NAMES.map((name) => outcome(() => bytesInside(folder, name)));
      memory.settle();
      rememberWith(null);
      const cold = NAMES.map((name) =>
        outcome(() => {
          const raw = readInside(folder, name);
          return { text: raw.toString('utf8'), bytes: raw.length };
        }),
      );
      const plain = (o: unknown) => (typeof o === 'string' ? o : { ...(o as object) });
      expect(warm.map(plain)).toMatchObject(cold.map(plain) as object[]);
      expect(sizes).toEqual(cold.map((c) => (typeof c === 'string' ? c : (c as { bytes: number }).bytes)));
      taken += warm.filter((w) => typeof w === 'object' && w !== null && 'reading' in w).length;
    }
    expect(taken).toBeGreaterThan(100);
  });

  const state = { dev: 1, ino: 2, size: 3, mtimeMs: 1000, ctimeMs: 1000 };
  const text = { text: 'abc', bytes: 3 };

  it('are read again for every part of a state that is another one', () => {
    const memory = new FilesMemory(10, () => 5000);
    memory.keep('/x', state, text);
    expect(memory.recall('/x', state)).toMatchObject(text);
    expect(memory.recall('/y', state)).toBeUndefined();
    for (const key of Object.keys(state) as (keyof typeof state)[])
      expect(memory.recall('/x', { ...state, [key]: state[key] + 1 })).toBeUndefined();
  });

  it('aren’t kept of a file that changed too little before it was read, nor of one that grew while it was read', () => {
    const kept = (ms: number, bytes = 3) => {
      const memory = new FilesMemory(2500, () => ms);
      memory.keep('/x', state, text);
      memory.keep('/x', { ...state, mtimeMs: 900 }, { text: 'abcd', bytes });
      return memory.recall('/x', { ...state, mtimeMs: 900 })?.text;
    };
    expect([kept(3500), kept(3501), kept(3501, 4)]).toEqual([undefined, 'abcd', undefined]);
    expect(kept(0)).toBeUndefined();
  });

  it('are forgotten when three readings didn’t ask for them', () => {
    const memory = new FilesMemory(10, () => 5000);
    for (const asked of [0, 3, 4]) {
      memory.keep('/x', state, text);
      for (let n = 0; n < asked; n++) memory.settle();
      expect(memory.recall('/x', state) !== undefined).toBe(asked < 4);
    }
  });
});
