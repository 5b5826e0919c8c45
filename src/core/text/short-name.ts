const GENERIC = new Set(['page', 'layout', 'route', 'main', 'style', 'styles']);

/**
 * `src/parts/fare-calculator.tsx` → `fare-calculator`, `src/crew/page.tsx` → `crew page`, `src/crew/index.ts` → `crew`;
 * package names and addresses stay as they are.
 */
export function shortName(path: string): string {
  if (path.startsWith('@') || !path.includes('/')) return path;
  const file = path.slice(path.lastIndexOf('/') + 1);
  const bare = file.replace(/\.[a-z]+$/, '');
  if (bare !== 'index' && bare !== '' && !GENERIC.has(bare)) return bare;
  const above = path.slice(0, path.lastIndexOf('/'));
  const folder = above.slice(above.lastIndexOf('/') + 1);
  if (folder === '' || folder === 'src') return bare || path;
  return GENERIC.has(bare) ? `${folder} ${bare}` : folder;
}
