import path from 'node:path';
import { fileOfAddress, withoutQuery } from '../../core/text/address.ts';

/** Finds the file that a text inside another file means. */
export class NamedFiles {
  private readonly byName = new Map<string, string[]>();
  private readonly byFolder = new Map<string, string[]>();

  constructor(files: readonly string[]) {
    for (const file of files) {
      add(this.byName, path.posix.basename(file), file);
      add(this.byFolder, path.posix.dirname(file), file);
    }
  }

  /** Relative specifiers are resolved; anything else has to end like the path of exactly one file, or hold it. */
  find(written: string, from: string): string | null {
    const bare = fileOfAddress(withoutQuery(written));
    const candidates = this.byName.get(path.posix.basename(bare)) ?? [];
    if (/^\.{1,2}\//.test(bare)) {
      const target = path.posix.join(path.posix.dirname(from), bare);
      return candidates.includes(target) ? target : null;
    }
    const own = bare.replace(/^\/+/, '');
    const fits = candidates.filter((c) => c !== from && (`/${c}`.endsWith(`/${own}`) || `/${own}`.endsWith(`/${c}`)));
    return fits.length === 1 ? fits[0] : null;
  }

  /** Files whose relative address has this beginning and this end, with one name between. */
  between(before: string, after: string, from: string): string[] {
    if (!/^\.{1,2}\//.test(before)) return [];
    const prefix = path.posix.join(path.posix.dirname(from), before);
    const folder = before.endsWith('/') ? prefix.replace(/\/$/, '') : path.posix.dirname(prefix);
    return (this.byFolder.get(folder) ?? []).filter(
      (f) => f !== from && f.length > prefix.length + after.length && f.startsWith(prefix) && f.endsWith(after),
    );
  }
}

function add(map: Map<string, string[]>, key: string, file: string): void {
  const known = map.get(key);
  if (known) known.push(file);
  else map.set(key, [file]);
}
