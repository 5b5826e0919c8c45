/**
 * A source's name as a path inside the app: without a scheme, without the ways up and the brackets in which builds
 * write their own roots, without a query. `kit:///[project]/src/a.ts?x` → `src/a.ts`, `../../src/a.ts` → `src/a.ts`.
 */
export function sourcePath(source: string): string {
  const bare = source
    .replace(/^[a-z][a-z0-9+.-]*:\/\/+/i, '')
    .replace(/[?#].*$/, '')
    .replaceAll('\\', '/');
  const pieces: string[] = [];
  for (const piece of bare.split('/')) {
    if (piece === '' || piece === '.') continue;
    if (piece === '..') pieces.pop();
    else pieces.push(piece);
  }
  while (pieces.length > 1 && /^(\[.+\]|\(.+\))$/.test(pieces[0])) pieces.shift();
  return pieces.join('/') || 'source';
}

/** The package that a source belongs to, from the last `node_modules` folder on its path. */
export function packageOf(path: string): { name: string; folder: string } | null {
  const mark = 'node_modules/';
  const at = path.lastIndexOf(mark);
  if (at < 0) return null;
  const pieces = path.slice(at + mark.length).split('/');
  const name = pieces[0].startsWith('@') ? pieces.slice(0, 2).join('/') : pieces[0];
  return { name, folder: `${path.slice(0, at + mark.length)}${name}` };
}
