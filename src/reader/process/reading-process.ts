import fs from 'node:fs';
import path from 'node:path';
import { deserialize } from 'node:v8';
import { InputError } from '../../core/errors.ts';
import { packageDescription } from '../described-in.ts';
import { Ahead } from '../memory/ahead.ts';
import { DiskMemory } from '../memory/disk-memory.ts';
import { FilesMemory } from '../memory/files-memory.ts';
import { rememberWith } from '../memory/memory.ts';
import { OnceMemory } from '../memory/once-memory.ts';
import { withKeptTimes } from '../memory/package-memory.ts';
import { ReadingsMemory } from '../memory/readings-memory.ts';
import { pathFrom } from '../path-from.ts';
import { readApp } from '../read-app.ts';
import { workspaceOf } from '../read-source.ts';
import { type Compiling, compilingOf } from '../script/compiling.ts';
import { shareParserMemory } from '../script/raw-parse.ts';
import { unpack } from '../unpack/unpack.ts';
import { watchWith } from '../watch.ts';
import { writeLeft } from './left-file.ts';
import { type Archive, BEGUN_BYTES, type Begun, FILES, type Handed, type Left, type Read, type Told } from './work.ts';

/**
 * Reads a folder or an archive in a process of its own: whatever ends it (a parser's stack, memory, its watcher) ends nothing
 * else. The folder that it is handed holds the work; what it has begun and what came of it are written there.
 */
const EVERY_MS = 100;
const folder = process.argv[2];
const { work, skip, memory, alone, stays } = deserialize(fs.readFileSync(path.join(folder, FILES.handed))) as Handed;
const begun = fs.openSync(path.join(folder, FILES.begun), 'w');
const line = Buffer.alloc(BEGUN_BYTES);
let n = 0;
let helped = false;
watchWith({
  skip: new Map(skip),
  begun: (what, isFile) => {
    line.fill(0);
    const now: Begun = { n: ++n, what: what.slice(-300), isFile, helped };
    line.write(JSON.stringify(now));
    fs.writeSync(begun, line, 0, BEGUN_BYTES, 0);
  },
});

const kept = memory === null ? null : DiskMemory.open(memory);
// Only who reads again comes to the same files again.
const known = stays ? new ReadingsMemory(kept, new FilesMemory()) : new OnceMemory(kept);
rememberWith(known);
shareParserMemory();

async function read(): Promise<Read> {
  const { root, links } = 'archive' in work ? await unpacked(work.archive) : { root: work.folder, links: [] };
  const ahead = work.as === 'output' ? null : aheadOf(root);
  let told = 0;
  const made = readApp(root, {
    as: work.as,
    ...(work.base === null ? {} : { base: work.base }),
    ...(work.workspace === null ? {} : { workspace: work.workspace }),
    starts: work.starts,
    corrected: work.corrected,
    progress: (done, known) => {
      const now = performance.now();
      if (now - told < EVERY_MS) return;
      told = now;
      process.send?.({ read: done, known });
    },
  });
  ahead?.stop();
  helped = false;
  rememberWith(known);
  for (const [path, reason] of skip)
    if (!made.snapshot.failed.some((f) => f.path === path))
      made.snapshot.failed.push({ path, line: 1, message: reason });
  for (const link of links)
    made.snapshot.failed.push({ path: link, line: 1, message: 'a link in the archive; links are not followed' });
  known.settle();
  return memory === null ? made : { ...made, snapshot: withKeptTimes(memory, made.snapshot) };
}

let hasRead = false;

/** Has threads find out ahead what scripts say, where that pays. */
function aheadOf(root: string): { stop: () => void } | null {
  // After a try that ended in a file threads would end in it as well; and who has read once knows most.
  if (alone || skip.length > 0 || hasRead) return null;
  hasRead = true;
  let app: { root: string; compiling: Compiling };
  try {
    const bounds = work.workspace === null ? root : workspaceOf(root, work.workspace);
    app = { root: fs.realpathSync(root), compiling: compilingOf(root, packageDescription(root), bounds) };
  } catch {
    // The reading says what is wrong with the folder, or its description.
    return null;
  }
  const ahead = Ahead.over(known, app);
  helped = ahead.memory !== known;
  rememberWith(ahead.memory);
  return ahead;
}

/** The app is called after its archive where it doesn't say its own name. */
async function unpacked({ folder: own, file, name }: Archive): Promise<{ root: string; links: string[] }> {
  const called =
    name
      .replace(/\.(zip|tgz|tar\.gz)$/i, '')
      .replace(/[^\w.-]+/g, '-')
      .replace(/^\.+/, '') || 'app';
  const made = await unpack(path.join(own, file), name, path.join(own, 'unpacked', called));
  return { root: made.folder, links: made.links };
}

function leave(left: Left): void {
  writeLeft(path.join(folder, FILES.left), left);
}

// What a stream throws past its users must be told as well.
process.on('uncaughtException', (error) => {
  leave({ kind: 'broke', message: `${error.name}: ${error.message}` });
  process.exit(1);
});

const tell = (told: Told) => process.send?.(told);
let before: Pick<Read, 'texts' | 'sources'> = { texts: {}, sources: {} };

async function readAndTell(): Promise<void> {
  try {
    const { snapshot, texts, sources, ms } = await read();
    const [changedTexts, changedSources] = [changesOf(before.texts, texts), changesOf(before.sources, sources)];
    before = { texts, sources };
    const gone = { texts: changedTexts.gone, sources: changedSources.gone };
    tell({
      now: { snapshot, texts: changedTexts.others, sources: changedSources.others, gone, around: filesAround(), ms },
    });
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    tell({ refused: error.toJSON() });
  }
}

/** Files around the app’s folder of which the last reading took the text, installed packages aside. */
function filesAround(): string[] {
  if (!('folder' in work)) return [];
  const root = fs.realpathSync(work.folder);
  const read = known.files?.filesOfLast ?? [];
  return [...read]
    .map((file) => pathFrom(root, file))
    .filter((f) => f.startsWith('../') && !f.includes('node_modules/'));
}

function changesOf(
  old: Record<string, string>,
  now: Record<string, string>,
): { others: Record<string, string>; gone: string[] } {
  const others = Object.fromEntries(Object.entries(now).filter(([path, text]) => old[path] !== text));
  return { others, gone: Object.keys(old).filter((path) => now[path] === undefined) };
}

if (stays) {
  // One after the other: who reads has the process to itself.
  let last = Promise.resolve();
  process.on('message', () => {
    last = last.then(readAndTell);
  });
} else {
  try {
    leave({ kind: 'read', read: await read() });
  } catch (error) {
    if (error instanceof InputError) leave({ kind: 'refused', error: error.toJSON() });
    else leave({ kind: 'broke', message: error instanceof Error ? `${error.name}: ${error.message}` : String(error) });
  }
  process.disconnect?.();
}
