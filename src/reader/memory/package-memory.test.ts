import fs from 'node:fs';
import path from 'node:path';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { sketch } from '../../test-support/snapshots.ts';
import { keepPackageTimes, withKeptTimes } from './package-memory.ts';

afterAll(removeFolders);

const tides = 'node_modules/tides/index.js';
const app = sketch({ 'main.js': { imports: [tides] }, [tides]: { package: 'tides', bytes: 1000 } });
const time = (ms: number, bytes = 1000) => ({ name: 'tides', file: 'index.js', ms, bytes });
const told = (folder: string) => withKeptTimes(folder, app).modules[1].elsewhereMs;

describe('what rehearsals told of packages', () => {
  it('is there for whoever reads next, in the mean of what was measured', () => {
    const folder = path.join(folderOf({}), 'deep', 'cache');
    expect(withKeptTimes(folder, app)).toBe(app);
    expect(keepPackageTimes(folder, [time(2)], 1)).toBe(true);
    expect(told(folder)).toBe(2);
    keepPackageTimes(folder, [time(4), time(50, 5000)], 2);
    expect(told(folder)).toBe(3);
    for (let n = 3; n < 40; n++) keepPackageTimes(folder, [time(9)], n);
    expect(told(folder)).toBeGreaterThan(8.9);
  });

  it('is gone with its file, and nothing else', () => {
    const folder = folderOf({});
    keepPackageTimes(folder, [time(2)], 1);
    for (const file of fs.readdirSync(folder)) fs.rmSync(path.join(folder, file));
    expect(withKeptTimes(folder, app)).toBe(app);
  });

  it('is done without where its file can’t be used', () => {
    const broken = folderOf({ 'package-times.sqlite': 'no database' });
    expect(keepPackageTimes(broken, [time(2)], 1)).toBe(false);
    expect(withKeptTimes(broken, app)).toBe(app);
    const file = path.join(folderOf({ here: 'a file' }), 'here');
    expect(keepPackageTimes(file, [time(2)], 1)).toBe(false);
  });
});
