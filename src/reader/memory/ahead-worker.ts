import { type MessagePort, workerData } from 'node:worker_threads';
import { textIfThere } from '../folder-files.ts';
import { scriptSaid } from '../graph/script-said.ts';
import { shippedSizes, smallText } from '../graph/small-text.ts';
import { liveCode } from '../script/live-code.ts';
import { shareParserMemory } from '../script/raw-parse.ts';
import { namesIn } from '../sheet-users.ts';
import { mentionedWords, rulesIn } from '../unused-rules.ts';
import { addedOf } from '../weigh-together.ts';
import {
  type AddedWork,
  type AheadWork,
  aroundScript,
  BEGUN,
  DONE,
  type LaterWork,
  type LeftWork,
  OPEN,
  type SheetsWork,
  type SizesWork,
} from './ahead-work.ts';
import type { LeftAsked } from './left-asked.ts';
import { digestOf, rememberWith } from './memory.ts';

/** Finds out what scripts say that nobody has come to yet, on a thread of its own. */
const { root, files, compiling, states, from, to } = workerData as AheadWork & { to: MessagePort };

/** What was found out since it was told last. */
let found: [key: string, value: unknown][] = [];

shareParserMemory();
rememberWith({
  recall: () => undefined,
  keep: (key, value) => found.push([key, value]),
  digest: digestOf,
  files: null,
  foresee: null,
});

function findOut(file: string): void {
  const text = textIfThere(root, file);
  if (text !== null) scriptSaid(file, text, aroundScript(root, file, compiling));
}

/** What is left of a script, and what that weighs. */
function makeSmall({ path, code, commonJs, wanted }: LeftAsked, mentions: boolean): void {
  const small = commonJs ? smallText(path, code, true) : liveCode(path, code, wanted).small;
  shippedSizes(small);
  if (mentions) mentionedWords(small);
}

function tell(): void {
  if (found.length > 0) to.postMessage(found);
  found = [];
}

/** What goes wrong here goes wrong in the reading as well, which says so. */
function quietly(one: () => void): void {
  try {
    one();
  } catch {
    // The reading comes to it.
  }
}

/** Does one thing that nobody has begun; tells what was found out before it counts as done. */
function doOne(states: Int32Array, i: number, one: (i: number) => void): void {
  if (Atomics.compareExchange(states, i, OPEN, BEGUN) !== OPEN) return;
  quietly(() => one(i));
  tell();
  Atomics.store(states, i, DONE);
  Atomics.notify(states, i);
}

/** Goes through all, from a place on and around. */
function goAround(states: Int32Array, from: number, one: (i: number) => void): void {
  for (let n = 0; n < states.length; n++) doOne(states, (from + n) % states.length, one);
}

/** Goes through a share from its end on: the reading comes from its beginning, and they meet only once. */
function goToMeet(states: Int32Array, one: (i: number) => void): void {
  for (let i = states.length - 1; i >= 0; i--) doOne(states, i, one);
}

function goOnWithLeft({ asked, states, from, mentions }: LeftWork): void {
  goToMeet(states.subarray(from, from + asked.length), (i) => makeSmall(asked[i], mentions));
}

function goOnWithSheets({ texts }: SheetsWork): void {
  for (const text of texts)
    quietly(() => {
      rulesIn(text);
      namesIn(text);
    });
  tell();
}

function goOnWithSizes({ asked, states, from }: SizesWork): void {
  goToMeet(states.subarray(from, from + asked.length), (i) => {
    const { text, mentions } = asked[i];
    shippedSizes(text);
    if (mentions) mentionedWords(text);
  });
}

function goOnWithAdded({ texts, runs, sample, before, states, from, of, firstRun }: AddedWork): void {
  const added = addedOf(texts, Buffer.from(sample));
  const share = texts.length - before;
  goToMeet(states.subarray(from, from + share), (i) => added.after(before + i));
  const run = 2 * of + firstRun;
  goToMeet(states.subarray(run, run + runs.length), (i) =>
    added.run(runs[i][0] - from + before, runs[i][1] - from + before),
  );
  goToMeet(states.subarray(of + from, of + from + share), (i) => added.far(before + i));
}

goAround(states, from, (i) => findOut(files[i]));
to.on('message', (work: LaterWork) => {
  switch (work.kind) {
    case 'sheets':
      return goOnWithSheets(work);
    case 'left':
      return goOnWithLeft(work);
    case 'sizes':
      return goOnWithSizes(work);
    case 'added':
      return goOnWithAdded(work);
  }
});
