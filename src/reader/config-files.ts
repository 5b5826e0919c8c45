import fs from 'node:fs';

/** Configuration files of builds at the top of an app, by name, in order. */
export function configFiles(root: string): string[] {
  try {
    return fs
      .readdirSync(root)
      .filter((f) => /^[\w-]+\.config\.[mc]?[jt]s$/.test(f))
      .sort();
  } catch {
    return [];
  }
}
