const GENERIC = new Set(['page', 'layout', 'route', 'main', 'style', 'styles']);

/** Names of files and folders that say nothing of what a package is. */
const OF_PACKAGES =
  /^(index|main|module|browser|entry|src|lib|dist|build|es\d{0,4}|esm\d{0,4}|cjs|umd|bundle|mjs|js|production|development|min)(\W.*)?$/i;

/**
 * What a person calls a module: `src/parts/fare-calculator.tsx` → `fare-calculator`, `src/crew/page.tsx` → `crew page`, `src/crew/index.ts` → `crew`;
 * the entry of a package is called by its name (`node_modules/d3-shape/src/index.js` → `d3-shape`). Package names and addresses stay as they are.
 */
export function shortName(path: string): string {
  if (path.startsWith('@') || !path.includes('/')) return path;
  if (path.endsWith('?style')) return `${shortName(path.slice(0, -'?style'.length))} styles`;
  const inPackage = /(?:^|\/)node_modules\/((?:@[^/]+\/)?[^/]+)\/([^?]*)$/.exec(path);
  if (inPackage) return nameInPackage(inPackage[1], inPackage[2]);
  const file = path.slice(path.lastIndexOf('/') + 1);
  const bare = file.replace(/\.[a-z]+$/, '');
  if (bare !== 'index' && bare !== '' && !GENERIC.has(bare)) return bare;
  const folders = path.split('/').slice(0, -1);
  // The sources of a package of the same workspace are called by its folder.
  const named = folders.findLast((f) => f !== 'src' && f !== '..' && f !== 'lib');
  if (named === undefined) return bare || path;
  if (folders[folders.length - 1] === 'src' && folders.length === 1) return bare || path;
  return GENERIC.has(bare) ? `${named} ${bare}` : named;
}

/** The name of a package for what is its entry, else that of the file. */
function nameInPackage(name: string, inside: string): string {
  const pieces = inside.replace(/(\.(production|development|min|esm|cjs|mjs|browser))*\.\w+$/, '').split('/');
  const own = name.slice(name.lastIndexOf('/') + 1).toLowerCase();
  const telling = pieces.filter((p) => !OF_PACKAGES.test(p) && p.toLowerCase().split('.')[0] !== own);
  return telling.length === 0 ? name : telling[telling.length - 1];
}
