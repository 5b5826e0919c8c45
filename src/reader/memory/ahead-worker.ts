import { type MessagePort, workerData } from 'node:worker_threads';
import { textIfThere } from '../folder-files.ts';
import { scriptSaid } from '../graph/script-said.ts';
import { shippedSizes, smallText } from '../graph/small-text.ts';
import { liveCode } from '../script/live-code.ts';
import { shareParserMemory } from '../script/raw-parse.ts';
import { type AheadWork, aroundScript, BEGUN, DONE, type LeftWork, OPEN } from './ahead-work.ts';
import type { LeftAsked } from './left-asked.ts';
import { digestOf, rememberWith } from './memory.ts';

/** Finds out what scripts say that nobody has come to yet, on a thread of its own. */
const { root, files, compiling, states, from, to } = workerData as AheadWork & { to: MessagePort };

shareParserMemory();
rememberWith({
  recall: () => undefined,
  keep: (key, value) => to.postMessage([key, value]),
  digest: digestOf,
  files: null,
  foresee: null,
});

function findOut(file: string): void {
  const text = textIfThere(root, file);
  if (text === null) return;
  try {
    scriptSaid(file, text, aroundScript(root, file, compiling));
  } catch {
    // The reading comes to it and says what is wrong.
  }
}

/** Goes through what nobody has begun, from a place on and around. */
function work(states: Int32Array, from: number, one: (i: number) => void): void {
  for (let n = 0; n < states.length; n++) {
    const i = (from + n) % states.length;
    if (Atomics.compareExchange(states, i, OPEN, BEGUN) !== OPEN) continue;
    one(i);
    Atomics.store(states, i, DONE);
    Atomics.notify(states, i);
  }
}

/** What is left of a script, and what that weighs. */
function makeSmall({ path, code, commonJs, wanted }: LeftAsked): void {
  try {
    shippedSizes(commonJs ? smallText(path, code, true) : liveCode(path, code, wanted).small);
  } catch {
    // The same.
  }
}

work(states, from, (i) => findOut(files[i]));
to.on('message', ({ asked, states, from }: LeftWork) =>
  work(states.subarray(from, from + asked.length), 0, (i) => makeSmall(asked[i])),
);
