import fs from 'node:fs';
import path from 'node:path';
import { directoryRoutes } from '../routes/directory-routes.ts';
import { pageFileRoutes } from '../routes/page-files.ts';
import { aroundAll, hasDependency } from './conventions.ts';
import type { FoundEntry, FoundStart, PackageDescription } from './types.ts';

/** Functions of pages that only run on the server or while building. */
const DATA_FUNCTIONS = ['getServerSideProps', 'getStaticProps', 'getStaticPaths'];

/** What the framework's own client asks for and its build puts there. */
const FILLED_IN = /^private-next-/;

/** What the framework itself starts in the browser, by kind of folder, where it is installed. */
const RUNTIME = { app: 'next/dist/client/app-next.js', pages: 'next/dist/client/next.js' };

/**
 * Apps whose routes are an app folder, a folder of pages, or both (public conventions of Next.js). In the app folder only what is marked
 * for the client ships; of pages everything but their data functions and what only these use.
 */
export function nextEntries(root: string, description: PackageDescription): FoundEntry[] {
  const isNext = hasDependency(description, 'next') || fs.readdirSync(root).some((f) => /^next\.config\./.test(f));
  const byFolder = directoryRoutes(root);
  const byFile = isNext ? pageFileRoutes(root) : [];
  const found: FoundEntry[] = [];
  if (byFolder.length > 0) {
    found.push({
      ...{ realm: 'site', document: null, html: null, routes: byFolder },
      starts: [...runtime(root, RUNTIME.app), ...aroundAll(byFolder).map(own)],
      rendering: 'server',
      ships: 'what is marked',
      filledIn: FILLED_IN,
      drawnWith: 'next',
    });
  }
  if (byFile.length > 0)
    found.push({
      ...{ realm: byFolder.length > 0 ? 'pages' : 'site', document: null, html: null, routes: byFile },
      starts: [...runtime(root, RUNTIME.pages), ...aroundAll(byFile).map(own)],
      rendering: 'server',
      ships: { without: DATA_FUNCTIONS },
      filledIn: FILLED_IN,
    });
  return found;
}

function own(file: string): FoundStart {
  return { address: `/${file}`, line: 1, kind: 'script' };
}

function runtime(root: string, file: string): FoundStart[] {
  return fs.existsSync(path.join(root, 'node_modules', file)) ? [own(`node_modules/${file}`)] : [];
}
