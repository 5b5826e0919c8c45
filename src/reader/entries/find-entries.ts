import fs from 'node:fs';
import path from 'node:path';
import { InputError } from '../../core/errors.ts';
import { NOTES_FILE } from '../../core/formats/app-notes.ts';
import { packageDescription } from '../described-in.ts';
import { filesBelow } from '../files-below.ts';
import { angularEntries } from './angular.ts';
import { documentsOf } from './documents.ts';
import { islandEntries } from './islands.ts';
import { nextEntries } from './next.ts';
import { nuxtEntries } from './nuxt.ts';
import { appsBelow, likelyStarts } from './offers.ts';
import { routeModuleEntries } from './route-modules.ts';
import { svelteEntries } from './svelte.ts';
import type { FoundEntry, PackageDescription } from './types.ts';
import { fromModules, runs, USUAL, usualModule } from './usual.ts';

const MOST_TOLD = 3;

/**
 * Finds what starts an app: HTML files with scripts, else what the convention of a framework says, else the described or usual entry module, for
 * which builds write the script into a document.
 */
export function findEntries(root: string, description: PackageDescription): FoundEntry[] {
  const known = knownEntries(root, description);
  if (known.length > 0) return known;
  const apps = holdsPackages(root, description) ? appsBelow(root, isApp) : [];
  if (apps.length > 0) throw severalApps(root, apps);
  const file = usualModule(root, description);
  const html = documentsOf(root);
  const styled = html.filter((e) => e.starts.length > 0);
  const made = file === undefined ? null : fromModules([file], html);
  if (made && (made.document !== null || !styled.some((d) => runs(d, file!)))) return [made];
  if (styled.length > 0) return styled;
  const sources = sourcesBelow(root);
  if (sources.length === 0)
    throw new InputError(
      'No sources',
      'The folder has no HTML, script or style files. Name the folder that holds package.json or index.html.',
      path.basename(root),
    );
  const below = appsBelow(root, isApp);
  const starts = likelyStarts(root, sources);
  const pages = sources.filter((f) => /(^|\/)(pages?|views?|screens?|routes?)\/|[pP]age\.\w+$/.test(f));
  const seen = [
    below.length > 0 ? `Below it lie apps: ${some(below)}; name the folder of one.` : '',
    starts.length > 0 ? `Nothing imports ${some(starts)}: one of these may start it.` : '',
    pages.length > 0
      ? `${pages.length === 1 ? '1 file looks like a page' : `${pages.length} files look like pages`}, such as ${pages.slice(0, 2).join(' and ')}.`
      : '',
  ].filter((told) => told !== '');
  throw new InputError(
    'No entry',
    `There are sources, but no HTML file with a module script, no folder of routes that is known, and none of ${USUAL.slice(0, 4).join(', ')} … ${[...seen, ''].join(' ')}Name what starts the app where you read it, or in ${NOTES_FILE}: { "entries": [{ "modules": ["src/main.ts"] }] }`,
    path.basename(root),
    { apps: below, starts },
  );
}

/** What starts an app by its documents or by the convention of a framework. */
function knownEntries(root: string, description: PackageDescription): FoundEntry[] {
  const described = angularEntries(root);
  if (described.length > 0) return described;
  const started = documentsOf(root).filter((e) => e.starts.some((s) => s.kind === 'script'));
  if (started.length > 0) return started;
  for (const find of [routeModuleEntries, islandEntries, svelteEntries, nuxtEntries, nextEntries]) {
    const byFolders = find(root, description);
    if (byFolders.length > 0) return byFolders;
  }
  return [];
}

/** Whether a folder is an app, and no package that apps share; what can't be read is none. */
function isApp(folder: string): boolean {
  try {
    return (
      knownEntries(folder, packageDescription(folder)).length > 0 ||
      documentsOf(folder).some((e) => e.starts.length > 0) ||
      USUAL.some((f) => f.startsWith('src/main.') && fs.existsSync(path.join(folder, f)))
    );
  } catch (error) {
    if (error instanceof InputError) return false;
    throw error;
  }
}

/** Whether a folder is the top of a workspace: packages below it that are described there (public forms of package managers). */
function holdsPackages(root: string, { workspaces }: PackageDescription): boolean {
  return workspaces !== undefined || fs.existsSync(path.join(root, 'pnpm-workspace.yaml'));
}

/** A workspace is no app, and which of its apps is meant only a person can say. */
function severalApps(root: string, apps: string[]): InputError {
  const detail =
    apps.length === 1
      ? `It holds one app, ${apps[0]}. Read that folder, with this one as the workspace around it.`
      : `It holds ${apps.length} apps: ${some(apps)}. Read the folder of one of them, with this one as the workspace around it.`;
  return new InputError('A workspace of apps', detail, path.basename(root), { apps, starts: [] });
}

/** The first of some paths, in words. */
function some(paths: readonly string[]): string {
  const shown = paths.slice(0, MOST_TOLD).join(', ');
  return paths.length > MOST_TOLD ? `${shown} and ${paths.length - MOST_TOLD} more` : shown;
}

/** Scripts, styles and documents below a folder, a few folders deep. */
function sourcesBelow(root: string): string[] {
  return filesBelow(root, '', 6).filter((f) => !/(^|\/)\./.test(f) && /\.([mc]?[jt]sx?|css|html?|vue|svelte)$/.test(f));
}
