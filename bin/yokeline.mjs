#!/usr/bin/env node
import fs from 'node:fs';

const built = new URL('../dist/cli/main.js', import.meta.url);
if (!fs.existsSync(built)) {
  process.stderr.write('yokeline: not built yet; run npm run build:node (script/start and script/test do it too)\n');
  process.exit(2);
}
const { run } = await import(built.href);
await run(process.argv);
