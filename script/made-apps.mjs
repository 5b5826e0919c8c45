// Apps of real packages that scripts make to measure with: packages from the registry in a folder of their own, files written, and what is assembled served.
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';

/** A folder for made apps: the one that is named, which stays, or a new one; `done` removes that. */
export function madeFolder(kept, name) {
  const folder = path.resolve(kept ?? fs.mkdtempSync(path.join(os.tmpdir(), `yokeline-${name}-`)));
  return { folder, done: () => kept || fs.rmSync(folder, { recursive: true }) };
}

/** Installs packages into a folder, where that has none yet, without running anything of them. */
export function installInto(folder, packages) {
  if (fs.existsSync(path.join(folder, 'node_modules'))) return;
  writeFiles(folder, { 'package.json': '{ "private": true }' });
  const flags = ['--ignore-scripts', '--no-audit', '--no-fund', '--legacy-peer-deps', '--silent'];
  execFileSync('npm', ['install', ...flags, ...packages], { cwd: folder, stdio: ['ignore', 'ignore', 'inherit'] });
}

/** Writes files below a folder, by path. */
export function writeFiles(folder, files) {
  for (const [file, text] of Object.entries(files)) {
    fs.mkdirSync(path.dirname(path.join(folder, file)), { recursive: true });
    fs.writeFileSync(path.join(folder, file), text);
  }
}

/** Serves scripts by their address, and one page for every other address. `files` and `page` may be put anew. */
export async function serveFiles() {
  const served = { files: new Map(), page: '' };
  const server = http.createServer((request, response) => {
    const text = served.files.get(new URL(request.url, 'http://x').pathname);
    response.writeHead(200, { 'content-type': text === undefined ? 'text/html' : 'text/javascript' });
    response.end(text ?? served.page);
  });
  await new Promise((done) => server.listen(0, '127.0.0.1', done));
  const stop = () => {
    server.close();
    server.closeAllConnections();
  };
  return { served, address: `http://127.0.0.1:${server.address().port}/`, stop };
}
