import { type MessagePort, workerData } from 'node:worker_threads';
import { textIfThere } from '../folder-files.ts';
import { scriptSaid } from '../graph/script-said.ts';
import { type AheadWork, aroundScript } from './ahead-work.ts';
import { digestOf, rememberWith } from './memory.ts';

/** Finds out what scripts say before the reading comes to them, on a thread of its own. */
const { root, files, jsxImportSource, to } = workerData as AheadWork & { to: MessagePort };

rememberWith({
  recall: () => undefined,
  keep: (key, value) => to.postMessage([key, value]),
  digest: digestOf,
  files: null,
});

for (const file of files) {
  const text = textIfThere(root, file);
  if (text === null) continue;
  try {
    scriptSaid(file, text, aroundScript(root, file, jsxImportSource));
  } catch {
    // The reading comes to it and says what is wrong.
  }
}
to.close();
