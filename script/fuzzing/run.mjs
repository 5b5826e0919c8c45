import { fork } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { KINDS, tryCase } from './kinds.mjs';
import { drawn } from './mutate.mjs';

/** A process is replaced after so many cases, so that what one leaves behind doesn't add up. */
const CASES_EACH = 3000;

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { seed: { type: 'string' }, kind: { type: 'string' }, case: { type: 'string' }, hang: { type: 'string' } },
});
/** A case that keeps the processor busy for so long hangs. */
const HANG_MS = Number(values.hang ?? 5) * 1000;
/** Nothing is heard of a case while it runs: it is ended after so many times that, since others may keep the machine busy. */
const PATIENCE = 5;
const kinds = values.kind ? [values.kind] : Object.keys(KINDS);
if (values.kind && !(values.kind in KINDS)) {
  console.error(`There is no kind ${values.kind}; there are: ${Object.keys(KINDS).join(', ')}.`);
  process.exit(2);
}

if (values.case !== undefined) {
  const value = drawn(KINDS[values.kind].input, Number(values.case));
  console.log(typeof value === 'string' ? value.slice(0, 4000) : value);
  console.log((await tryCase(values.kind, Number(values.case))) ?? 'all is well');
  process.exit(0);
}

const seconds = Number(positionals[0] ?? 60);
const first = Number(values.seed ?? Date.now() % 1e9);
const until = Date.now() + seconds * 1000;
const tried = Object.fromEntries(kinds.map((kind) => [kind, 0]));
const findings = new Map();
let next = 0;

/**
 * Tries a folder again as users do, in a process of its own with its limits: what ends the reading of one file must be told
 * and leave the rest. Gives what is wrong still, or null.
 */
async function asUsersDo(kind, seed) {
  const { folder, input, as } = KINDS[kind];
  if (!folder) return 'it ended or hung';
  const { runReading } = await import(new URL('../../dist/reader/process/run-reading.js', import.meta.url));
  const script = path.resolve('dist/reader/process/reading-process.js');
  const root = folder(drawn(input, seed));
  try {
    await runReading({ folder: root, as, base: null }, script).done;
    return null;
  } catch (error) {
    return error?.constructor?.name === 'InputError' ? null : `as users do: ${error?.stack ?? error}`;
  } finally {
    fs.rmSync(root, { recursive: true, force: true });
  }
}

function found(kind, seed, what) {
  // The same place in the code is the same finding.
  const key = `${kind}: ${what.split('\n').slice(0, 2).join(' ').slice(0, 200)}`;
  const known = findings.get(key);
  if (known) known.times++;
  else findings.set(key, { kind, seed, what, times: 1 });
}

async function ended(kind, seed, why) {
  const still = await asUsersDo(kind, seed);
  if (still !== null) found(kind, seed, `${why}; ${still}`);
}

function line() {
  return new Promise((done) => {
    const begin = () => {
      const child = fork(new URL('./child.mjs', import.meta.url), {
        stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
        execArgv: ['--max-old-space-size=2048'],
      });
      let at = null;
      let clock = null;
      let left = CASES_EACH;
      let hung = false;
      const order = () => {
        if (Date.now() > until || left-- <= 0) {
          at = null;
          child.kill();
          return;
        }
        at = { kind: kinds[next % kinds.length], seed: first + Math.floor(next / kinds.length) };
        next++;
        child.send(at);
      };
      child.on('message', (said) => {
        if (said.begins) {
          clock = setTimeout(() => {
            hung = true;
            child.kill('SIGKILL');
          }, HANG_MS * PATIENCE);
          return;
        }
        clearTimeout(clock);
        if (!said.ready) {
          tried[said.kind]++;
          if (said.failed) found(said.kind, said.seed, said.failed);
          else if (said.ms > HANG_MS) ended(said.kind, said.seed, `it took ${(said.ms / 1000).toFixed(1)} s`);
        }
        order();
      });
      child.on('exit', async (code, signal) => {
        clearTimeout(clock);
        if (at !== null) {
          tried[at.kind]++;
          await ended(
            at.kind,
            at.seed,
            hung ? `no answer for ${(HANG_MS * PATIENCE) / 1000} s` : `the process ended (${signal ?? code})`,
          );
        }
        if (Date.now() > until) done();
        else begin();
      });
    };
    begin();
  });
}

await Promise.all(Array.from({ length: Math.max(1, os.availableParallelism()) }, line));

const all = Object.values(tried).reduce((sum, n) => sum + n, 0);
console.log(`${all} inputs in ${seconds} s, seeds from ${first}:`);
for (const [kind, n] of Object.entries(tried)) console.log(`  ${kind.padEnd(14)} ${String(n).padStart(8)}`);
console.log(findings.size === 0 ? 'nothing found' : `${findings.size} found:`);
for (const { kind, seed, what, times } of findings.values())
  console.log(`\n${kind}, ${times} times; again with: script/fuzz --kind '${kind}' --case ${seed}\n${what}`);
if (findings.size > 0 || all === 0) process.exitCode = 1;
