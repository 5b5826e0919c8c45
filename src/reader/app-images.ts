import type { ContentItem, Part } from '../core/snapshot/route-types.ts';
import { DEFAULT_SERVER_MS } from '../core/snapshot/route-types.ts';
import { FreeNames } from '../core/text/free-names.ts';
import { isDrawnUnder } from './parts/drawn-under.ts';
import type { DrawingModule, DrawnPaths } from './parts/find-parts.ts';

/** Where an image that a module draws lies, and how large it is; null where nobody can find out. */
export type ImageAt = (
  path: string,
  image: DrawingModule['images'][number],
) => { address: string; bytes: number } | null;

/**
 * The images of a route: those of modules that are drawn at first, without those that only what lies below the first screen
 * draws. What belongs to a part is needed by it.
 */
export function routeImages(
  parts: readonly Part[],
  drawn: DrawnPaths,
  moduleAt: (path: string) => DrawingModule | undefined,
  imageAt: ImageAt,
): { content: ContentItem[]; parts: Part[] } {
  const later = new Set(parts.filter((p) => p.place !== 'first screen').map((p) => p.module));
  const names = new FreeNames();
  const content: ContentItem[] = [];
  const needs = new Map<string, string[]>();
  for (const [path, taken] of drawn) {
    const module = moduleAt(path);
    if (!module || later.has(path)) continue;
    for (const image of module.images) {
      if (!isDrawnUnder(image, module.owners, taken)) continue;
      const file = imageAt(path, image);
      if (!file || content.some((c) => c.address === file.address)) continue;
      const wished = file.address.replace(/^.*\//, '').replace(/\.\w+$/, '');
      const id = names.give(wished, (n) => `${wished} ${n}`);
      const { lazy, line } = image;
      content.push({
        ...{ id, kind: 'image', ...file, serverMs: DEFAULT_SERVER_MS, foundIn: { module: path } },
        ...{ place: lazy ? 'below' : 'first screen', lazy, evidence: { path, line } },
      });
      needs.set(path, [...(needs.get(path) ?? []), id]);
    }
  }
  const filled = parts.map((p) => {
    const own = p.place === 'first screen' ? (needs.get(p.module) ?? []) : [];
    return own.length > 0 ? { ...p, needs: [...new Set([...p.needs, ...own])] } : p;
  });
  return { content, parts: filled };
}
