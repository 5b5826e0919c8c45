import { structuredPatch } from 'diff';

/** One file's part of a unified diff as `git apply` takes it; paths as they are in the folder that was read. */
export function unifiedDiff(path: string, before: string, after: string): string {
  const { hunks } = structuredPatch(path, path, before, after, undefined, undefined, { context: 3 });
  const [old, now] = [`a/${path}`, `b/${path}`].map(quotedPath);
  // A name with a space is ended by a tab, so that what follows isn't taken for a part of it.
  const end = path.includes(' ') ? '\t' : '';
  const lines = [`diff --git ${old} ${now}`, `--- ${old}${end}`, `+++ ${now}${end}`];
  for (const h of hunks) {
    lines.push(`@@ -${h.oldStart},${h.oldLines} +${h.newStart},${h.newLines} @@`, ...h.lines);
  }
  return `${lines.join('\n')}\n`;
}

/** Lines that a diff adds and takes away. */
export function countLines(diff: string): { added: number; removed: number } {
  const inHunks = diff.split('\n').filter((l) => !/^(\+\+\+|---) /.test(l));
  return {
    added: inHunks.filter((l) => l.startsWith('+')).length,
    removed: inHunks.filter((l) => l.startsWith('-')).length,
  };
}

/** Names with quotes, backslashes or control characters are written as strings of C, byte by byte as git does. */
function quotedPath(path: string): string {
  if (!/["\\\p{Cc}]/u.test(path)) return path;
  const escaped = path
    .replace(/["\\]/g, '\\$&')
    .replace(/\p{Cc}/gu, (c) => [...Buffer.from(c)].map((b) => `\\${b.toString(8).padStart(3, '0')}`).join(''));
  return `"${escaped}"`;
}
