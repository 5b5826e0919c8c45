import type { Measured } from '../snapshot/measured-types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** What a file of a package took when it ran, in ms on the reference device, as a rehearsal of some app told. */
export interface PackageTime {
  name: string;
  /** Path in the package. */
  file: string;
  ms: number;
  /** Its size then (minified): versions differ, and builds leave parts of files out. */
  bytes: number;
}

/** A file that is larger or smaller than the measured one by more than this share is taken for another one. */
const SAME = 0.1;

/** What was newly measured of an app’s packages, for other apps that have them too. `before`: what was known of it, and has been told. */
export function packageTimes({ modules = {} }: Measured, before: Measured | null = null): PackageTime[] {
  const told = before?.modules ?? {};
  return Object.entries(modules).flatMap(([path, { ms, bytes }]) => {
    const isTold = Object.hasOwn(told, path) && told[path].ms === ms && told[path].bytes === bytes;
    const place = isTold ? null : placeOf(path);
    return place && bytes > 0 ? [{ ...place, ms, bytes }] : [];
  });
}

/**
 * A snapshot that says of the modules of packages what they took in other apps. `knownOf`: what is known of a package, by its name; of several files under one path the one
 * counts whose size is nearest.
 */
export function withPackageTimes(snapshot: Snapshot, knownOf: (name: string) => readonly PackageTime[]): Snapshot {
  const byName = new Map<string, Map<string, PackageTime[]>>();
  const timesOf = (name: string) => {
    let files = byName.get(name);
    if (files) return files;
    files = new Map();
    for (const time of knownOf(name)) files.set(time.file, [...(files.get(time.file) ?? []), time]);
    byName.set(name, files);
    return files;
  };
  const modules = snapshot.modules.map((module) => {
    const place = module.package !== null && module.kind === 'script' ? placeOf(module.path) : null;
    const off = ({ bytes }: PackageTime) => Math.abs(module.bytes.minified - bytes);
    const times = (place && timesOf(place.name).get(place.file)) ?? [];
    const [nearest] = times.filter((t) => off(t) <= SAME * t.bytes).sort((a, b) => off(a) - off(b));
    return nearest ? { ...module, elsewhereMs: nearest.ms } : module;
  });
  return { ...snapshot, modules };
}

/** The package that a path leads into, and the path in there, by the layout that installers of packages share; null for the app’s own files. */
function placeOf(path: string): Pick<PackageTime, 'name' | 'file'> | null {
  const inside = path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length);
  if (!path.includes('node_modules/')) return null;
  const pieces = inside.split('/');
  const name = pieces.splice(0, inside.startsWith('@') ? 2 : 1).join('/');
  return pieces.length > 0 ? { name, file: pieces.join('/') } : null;
}
