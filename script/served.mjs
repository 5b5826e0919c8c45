import { execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { launchBrowser } from './browser.mjs';
import { freePort } from './free-port.mjs';

/** Serves a fresh database with the sample, hands its address and a browser's context to `use`, and cleans up. */
export async function withSample(use) {
  const port = await freePort();
  const data = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-served-'));
  const env = {
    ...process.env,
    YOKELINE_DATA: data,
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    YOKELINE_FOLLOW: 'off',
  };
  execFileSync(process.execPath, ['dist/server/seed.js'], { env });
  const command = ['node_modules/next/dist/bin/next', 'start', '--hostname', '127.0.0.1', '--port', String(port)];
  const server = spawn(process.execPath, command, { env, stdio: 'ignore' });
  const browser = await launchBrowser();
  try {
    const address = `http://127.0.0.1:${port}`;
    for (let tries = 0; tries < 150; tries++) {
      const up = await fetch(`${address}/api/projects`).then(
        (r) => r.ok,
        () => false,
      );
      if (up) break;
      await new Promise((wake) => setTimeout(wake, 200));
    }
    // Whoever looks at single stations has left the guide.
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await context.addInitScript(() => localStorage.setItem('yokeline:guide', '{"state":"left","step":0}'));
    await use(address, context);
  } finally {
    await browser.close();
    server.kill();
    fs.rmSync(data, { recursive: true, force: true });
  }
}
