import path from 'node:path';

/** The path of a file from a folder, with slashes, as the app is told of with. Both are absolute. */
export function pathFrom(folder: string, file: string): string {
  // Nearly all files lie below: that needs no going through the parts of both.
  const below = file.startsWith(`${folder}${path.sep}`) ? file.slice(folder.length + 1) : path.relative(folder, file);
  return path.sep === '/' ? below : below.split(path.sep).join('/');
}
