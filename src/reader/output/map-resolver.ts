import path from 'node:path';
import { withoutQuery } from '../../core/text/address.ts';
import { packageOf } from './source-names.ts';

const EXTENSIONS = ['.tsx', '.ts', '.jsx', '.js', '.mts', '.mjs', '.cjs', '.vue', '.svelte', '.json', '.css'];

/**
 * Resolves specifiers among the sources that maps name. There is no disk to look at: packages' descriptions and path
 * aliases are not in maps, so names that aren't relative are found by the end of their path, where that is clear.
 */
export class MapResolver {
  private readonly byEnd = new Map<string, string[]>();
  private readonly byPackage = new Map<string, string[]>();
  /** What belongs to no package. */
  private readonly own = new Set<string>();

  constructor(private readonly paths: ReadonlySet<string>) {
    for (const p of paths) {
      const name = path.posix.basename(p);
      this.byEnd.set(name, [...(this.byEnd.get(name) ?? []), p]);
      const of = packageOf(p)?.name;
      if (of === undefined) this.own.add(p);
      else this.byPackage.set(of, [...(this.byPackage.get(of) ?? []), p]);
    }
  }

  /** The path of the source meant, or null. */
  resolve(from: string, specifier: string): string | null {
    const plain = withoutQuery(specifier);
    if (/^\.{1,2}(\/|$)/.test(plain)) return this.at(path.posix.join(path.posix.dirname(from), plain));
    const [, name, inside] = /^((?:@[^/]+\/)?[^/]+)(?:\/(.*))?$/.exec(plain) ?? [];
    const owned = name === undefined ? undefined : this.byPackage.get(name);
    if (owned) return inside ? this.ending(inside, new Set(owned)) : mainOf(name, owned);
    return this.ending(plain.replace(/^[@~#]?\/+/, ''), this.own);
  }

  private at(base: string): string | null {
    for (const p of variants(base)) if (this.paths.has(p)) return p;
    return null;
  }

  /** The one path among these that ends so; the shortest when several do. */
  private ending(end: string, among: ReadonlySet<string>): string | null {
    for (const v of variants(end)) {
      const fits = (this.byEnd.get(path.posix.basename(v)) ?? []).filter(
        (p) => among.has(p) && `/${p}`.endsWith(`/${v}`),
      );
      if (fits.length > 0) return fits.sort((a, b) => a.length - b.length)[0];
    }
    return null;
  }
}

function variants(base: string): string[] {
  const compiled = base.replace(/\.(m|c)?js$/, '');
  const bases = compiled === base ? [base] : [base, compiled];
  return [base, ...bases.flatMap((b) => EXTENSIONS.map((e) => b + e)), ...EXTENSIONS.map((e) => `${base}/index${e}`)];
}

/** The module of a package that its bare name most likely means. */
function mainOf(name: string, owned: string[]): string {
  const bare = name.replace(/^@[^/]+\//, '');
  const rank = (p: string) => {
    const file = path.posix.basename(p).replace(/\.[a-z]+$/, '');
    return file === 'index' ? 0 : file === bare ? 1 : file === 'main' ? 2 : 3;
  };
  return [...owned].sort((a, b) => rank(a) - rank(b) || a.length - b.length || (a < b ? -1 : 1))[0];
}
