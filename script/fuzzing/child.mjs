// Runs cases that it is sent, one at a time, and says how each went and how long it kept the processor busy.
import { tryCase } from './kinds.mjs';

const busyMs = () => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1000;
};

process.on('message', async ({ kind, seed }) => {
  let from = busyMs();
  // Making an input takes time as well, some of them are very large: only reading it counts.
  const failed = await tryCase(kind, seed, () => {
    from = busyMs();
    process.send({ begins: true });
  });
  process.send({ kind, seed, failed, ms: busyMs() - from });
});
process.send({ ready: true });
