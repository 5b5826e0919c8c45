import fs from 'node:fs';
import os from 'node:os';

/** How the time of this machine's processors went since it started, in ms. */
export interface Ticks {
  idle: number;
  /** Given to others by what runs this machine as a guest; known on Linux alone. */
  stolen: number;
  all: number;
}

export function ticks(): Ticks {
  const stolen = stolenIn(procStat());
  let idle = 0;
  let all = stolen;
  for (const { times } of os.cpus()) {
    idle += times.idle;
    all += times.user + times.nice + times.sys + times.idle + times.irq;
  }
  return { idle, stolen, all };
}

/** The stolen time in a text of `/proc/stat`, in ms; the eighth figure of its first line (proc(5)), in hundredths of a second. */
export function stolenIn(stat: string): number {
  const [, ...figures] = /^cpu\s.*/.exec(stat)?.[0].split(/\s+/) ?? [];
  return (Number(figures[7]) || 0) * 10;
}

function procStat(): string {
  try {
    return fs.readFileSync('/proc/stat', 'utf8');
  } catch {
    return '';
  }
}

/** What share of the processors' time between two moments was stolen (0 to 1). */
export function stolenShare(before: Ticks, after: Ticks): number {
  return after.all > before.all ? (after.stolen - before.stolen) / (after.all - before.all) : 0;
}

/** What share of the machine is busy while this process does nothing for a while (0 to 1). */
export async function busyShare(ms = 300): Promise<number> {
  const before = ticks();
  await new Promise((done) => setTimeout(done, ms));
  const after = ticks();
  const all = after.all - before.all;
  return all > 0 ? 1 - (after.idle - before.idle) / all : 0;
}
