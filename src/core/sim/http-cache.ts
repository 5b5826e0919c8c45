import type { Resource } from '../load/types.ts';
import type { CacheState } from '../vocabulary/cache-states.ts';

/** What the browser has kept of files: from earlier visits, and what the pages of this one have fetched. */
export class HttpCache {
  private readonly fetched = new Set<string>();
  private deployed = false;

  constructor(private readonly cache: CacheState) {}

  /** Whether a file is there and fresh, there but to be asked about, or not there. */
  of(item: Resource): 'fresh' | 'stale' | 'nothing' {
    if (item.cache === 'no-store') return 'nothing';
    if (this.fetched.has(item.address)) return item.cache === 'revalidate' ? 'stale' : 'fresh';
    if (this.deployed && item.changes) return 'nothing';
    return leftBy(this.cache, item);
  }

  /** A page has fetched a file. */
  add(item: Resource): void {
    if (item.cache !== 'no-store') this.fetched.add(item.address);
  }

  /** The app was built again: files with its own code have new addresses from now on. */
  deploy(changed: readonly Resource[]): void {
    this.deployed = true;
    for (const item of changed) if (item.changes) this.fetched.delete(item.address);
  }
}

/** What an earlier visit has left of a file. */
function leftBy(cache: CacheState, item: Resource): 'fresh' | 'stale' | 'nothing' {
  const { gone, asked } = LEFT[cache];
  if (gone(item)) return 'nothing';
  return asked || item.cache === 'revalidate' ? 'stale' : 'fresh';
}

/** Of which files nothing is left, and whether the browser asks about all others. */
const LEFT: Record<CacheState, { gone: (item: Resource) => boolean; asked: boolean }> = {
  empty: { gone: () => true, asked: false },
  returning: { gone: () => false, asked: false },
  frequent: { gone: () => false, asked: false },
  stale: { gone: () => false, asked: true },
  deployed: { gone: (item) => item.changes === true, asked: false },
  rebuilt: { gone: (item) => item.chunk !== undefined, asked: false },
};
