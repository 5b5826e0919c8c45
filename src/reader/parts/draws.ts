import { type DrawnApp, drawnAtOnce, usedBy } from './find-parts.ts';

/** The modules whose components a module draws as soon as it is drawn itself, with how many times its markup draws them: where it names them, and as often as the lists around are long. */
export function drawsOf(path: string, app: DrawnApp): Map<string, number> {
  const draws = new Map<string, number>();
  const module = app.moduleAt(path);
  if (!module || module.package !== null) return draws;
  for (const use of module.uses) {
    const { imported, target } = usedBy(path, use, app);
    if (target === undefined || target === path) continue;
    // What is deferred is drawn when it has come.
    if (module.deferred.has(target) || module.deferred.has(imported!) || !drawnAtOnce(use, module, app)) continue;
    draws.set(target, (draws.get(target) ?? 0) + (use.times ?? 1));
  }
  return draws;
}
