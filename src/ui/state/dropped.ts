import type { ToPack } from '../../worker/pack.worker.ts';

/** What was dropped or chosen: an archive or project file as it is, or the files of a folder. */
export type Dropped = { kind: 'file'; file: File } | { kind: 'folder'; name: string; files: ToPack[] };

const MOST_FILES = 60_000;
const MOST_BYTES = 400_000_000;
/** Folders that no app ships and that may be huge. */
const SKIPPED = new Set(['.git', '.hg', '.svn', '.cache']);
/** Of packages only what can end up in an app is taken along. */
const OF_PACKAGES = /\.([mc]?[jt]sx?|css|json|vue|svelte|wasm|map)$/;

/** Takes files out of a drop; a folder is walked through. Throws an Error in words for what can't be taken. */
export async function takeDrop(data: DataTransfer): Promise<Dropped> {
  const [item, ...others] = [...data.items].filter((i) => i.kind === 'file');
  if (!item || others.length > 0) throw new Error('Drop one thing: a folder, an archive or a project file.');
  const entry = item.webkitGetAsEntry();
  const file = item.getAsFile();
  if (!entry && file) return { kind: 'file', file };
  if (!entry) throw new Error('What was dropped can’t be read. Choose the file in the dialog instead.');
  if (entry.isFile) return { kind: 'file', file: await fileOf(entry as FileSystemFileEntry) };
  const files: ToPack[] = [];
  let bytes = 0;
  const walk = async (folder: FileSystemDirectoryEntry, path: string) => {
    for (const inside of await childrenOf(folder)) {
      const inner = path === '' ? inside.name : `${path}/${inside.name}`;
      if (inside.isDirectory) {
        if (!SKIPPED.has(inside.name)) await walk(inside as FileSystemDirectoryEntry, inner);
      } else if (!inner.includes('node_modules/') || OF_PACKAGES.test(inner)) {
        const file = await fileOf(inside as FileSystemFileEntry);
        bytes += file.size;
        files.push({ path: inner, file });
        if (files.length > MOST_FILES || bytes > MOST_BYTES)
          throw new Error(
            `The folder is too large to be dropped (over ${MOST_FILES} files or ${MOST_BYTES / 1e6} MB). Type its path instead.`,
          );
      }
    }
  };
  await walk(entry as FileSystemDirectoryEntry, '');
  if (files.length === 0) throw new Error('The folder is empty.');
  return { kind: 'folder', name: entry.name, files };
}

function fileOf(entry: FileSystemFileEntry): Promise<File> {
  return new Promise((done, fail) => entry.file(done, fail));
}

/** All entries of a folder; browsers hand them out in portions. */
async function childrenOf(folder: FileSystemDirectoryEntry): Promise<FileSystemEntry[]> {
  const reader = folder.createReader();
  const all: FileSystemEntry[] = [];
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((done, fail) => reader.readEntries(done, fail));
    if (some.length === 0) return all;
    all.push(...some);
  }
}

/** Packs a folder's files in a worker. `told` hears how many are done. */
export function packFolder(files: ToPack[], onProgress: (done: number) => void): Promise<Blob> {
  const worker = new Worker(new URL('../../worker/pack.worker.ts', import.meta.url), { type: 'module', name: 'pack' });
  return new Promise<Blob>((done, fail) => {
    worker.onmessage = ({ data }: MessageEvent) => {
      if (data.kind === 'progress') onProgress(data.done);
      else if (data.kind === 'done') done(new Blob([data.zip], { type: 'application/zip' }));
      else fail(new Error(data.message));
    };
    worker.onerror = (event) => fail(new Error(event.message));
    worker.postMessage(files);
  }).finally(() => worker.terminate());
}
