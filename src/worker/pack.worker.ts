import { type Zippable, zipSync } from 'fflate';

export interface ToPack {
  path: string;
  file: File;
}

/** Packs dropped files without compressing them: they only go to this machine's own server. */
addEventListener('message', async (event: MessageEvent<ToPack[]>) => {
  try {
    const files: Zippable = {};
    for (const [done, { path, file }] of event.data.entries()) {
      files[path] = new Uint8Array(await file.arrayBuffer());
      if (done % 200 === 0) postMessage({ kind: 'progress', done });
    }
    const zip = zipSync(files, { level: 0 });
    postMessage({ kind: 'done', zip }, { transfer: [zip.buffer] });
  } catch (error) {
    postMessage({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
});
