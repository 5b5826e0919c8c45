// Runs cases that it is sent, one at a time, and says how each went.
import { tryCase } from './kinds.mjs';

process.on('message', async ({ kind, seed }) => {
  process.send({ kind, seed, failed: await tryCase(kind, seed, () => process.send({ begins: true })) });
});
process.send({ ready: true });
