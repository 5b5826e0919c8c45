import fs from 'node:fs';
import path from 'node:path';

/** Names under which Chromium and what is built on it are usually installed. */
const NAMES = ['chromium-headless-shell', 'chromium', 'chromium-browser', 'google-chrome-stable', 'google-chrome'];
const APPLICATIONS = [
  '/Applications/Chromium.app/Contents/MacOS/Chromium',
  '/Applications/Google Chrome.app/Contents/MacOS/Google Chrome',
];

/** What is said where there is none. */
export const NO_BROWSER =
  'No Chromium was found on this machine. Install it (for example with “apt-get install chromium”), or name its program in the variable CHROMIUM. Nothing but rehearsals needs it.';

/** The program of a Chromium on this machine: the one that the variable CHROMIUM names, or one with a usual name on the path; null without one. */
export function findBrowser(env: NodeJS.ProcessEnv = process.env): string | null {
  if (env.CHROMIUM) return runs(env.CHROMIUM) ? env.CHROMIUM : null;
  const folders = (env.PATH ?? '').split(path.delimiter).filter((folder) => folder !== '');
  const places = [...NAMES.flatMap((name) => folders.map((folder) => path.join(folder, name))), ...APPLICATIONS];
  return places.find(runs) ?? null;
}

/** What a browser without the parts around pages begins later to connect than people’s browsers do, in ms: documents of recorded loads come so much earlier. */
const CONNECTS_LATER_MS = 10;

/** By how much a browser connects later than recorded loads have it. */
export function connectsLater(program: string): number {
  return /headless[-_]shell/.test(path.basename(program)) ? CONNECTS_LATER_MS : 0;
}

function runs(file: string): boolean {
  try {
    fs.accessSync(file, fs.constants.X_OK);
    return fs.statSync(file).isFile();
  } catch {
    return false;
  }
}
