import { execFileSync } from 'node:child_process';
import crypto from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import zlib from 'node:zlib';
import { built } from '../test-support/built.ts';
import { folderOf, removeFolders, SAMPLE } from '../test-support/folders.ts';

const digest = (text: string | Buffer) => crypto.createHash('sha256').update(text).digest('hex').slice(0, 16);

/** Compressors of other builds and processors give other sizes, and with them other figures of everything. */
const compressor = digest(zlib.gzipSync(fs.readFileSync(path.join(SAMPLE, 'ABOUT.md')), { level: 9 }));
const snapshots = path.resolve('src/cli/__snapshots__/readouts.test.ts.snap');
const isKnown = !fs.existsSync(snapshots) || fs.readFileSync(snapshots, 'utf8').includes(compressor);

describe('what the command line says about the samples', () => {
  afterAll(removeFolders);

  (isKnown ? it : it.skip)('stays the same to the letter, unless a change of the model is meant', () => {
    built('cli/main.js');
    const folder = folderOf({});
    execFileSync(process.execPath, [path.resolve('script/readouts.mjs'), folder, '--brief'], { stdio: 'ignore' });
    const digests = fs
      .readdirSync(folder, { recursive: true, encoding: 'utf8' })
      .filter((f) => fs.statSync(path.join(folder, f)).isFile())
      .sort()
      .map((f) => `${f} ${digest(fs.readFileSync(path.join(folder, f)))}`);
    expect(digests.length).toBeGreaterThan(100);
    // After a change of the model: look at both with `diff -r` (see script/readouts.mjs), then run this test with -u.
    expect([`compressor ${compressor}`, ...digests].join('\n')).toMatchSnapshot();
  });
});
