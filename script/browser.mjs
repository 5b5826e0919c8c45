import fs from 'node:fs';
import { chromium } from 'playwright-core';

/** Where a browser is looked for, beside what the variable CHROMIUM names; the one without windows begins sooner. */
const PLACES = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** Nothing is fetched that the pages don't ask for. */
const ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // Where a tool is attached, errors that code makes while it runs have the whole file gone through again, which no visitor's browser does (docs/REHEARSAL.md).
  '--js-flags=--no-enable-lazy-source-positions',
];

/** A real browser without a window, for tests, pictures and measurements. */
export function launchBrowser(timeout = 180_000) {
  const executablePath = process.env.CHROMIUM ?? PLACES.find((place) => fs.existsSync(place)) ?? PLACES[0];
  return chromium.launch({ executablePath, timeout, args: ARGS });
}
