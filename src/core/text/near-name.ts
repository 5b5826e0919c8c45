import { shortName } from './short-name.ts';

/**
 * How a line with little room names a file, with its line number where it has one: what is installed by the name of its package or file
 * (`../../node_modules/d3-shape/src/index.js` → `d3-shape`), the app’s own by its path without the way out of its folder (`../../packages/ui/src/tabs.tsx:7` → `packages/ui/src/tabs.tsx:7`).
 */
export function nearName(file: string): string {
  const [, path, line] = /^(.*?)((?::\d+)?)$/s.exec(file)!;
  return path.includes('node_modules/') ? `${shortName(path)}${line}` : file.replace(/^(?:\.\.\/)+/, '');
}
