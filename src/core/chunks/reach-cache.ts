import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { type Bits, bitsOf, has } from './bits.ts';
import { Reacher } from './reach.ts';

/** What starts reach over static imports, as a list and as bits. Shared between plans: not to be changed. */
export interface Reach {
  members: Uint32Array;
  bits: Bits;
}

/** Targets that plans have tried are remembered as well; not without end. */
const MOST_KNOWN = 2000;

const asBuilt = new WeakMap<Snapshot, Map<string, Reach>>();

/**
 * The reach of a root under a plan. What no decision touches is what it was as built, and that is remembered per
 * snapshot: one decision only walks again from the roots that reach the importer it speaks of.
 */
export class RootReach {
  private readonly changed: number[] = [];
  private readonly known: Map<string, Reach>;
  private readonly built: Reacher;
  private readonly now: Reacher;

  constructor(
    private readonly snapshot: Snapshot,
    deferred: Uint8Array,
  ) {
    const index = graphIndex(snapshot);
    const before = new Uint8Array(deferred.length);
    const importers = new Set<number>();
    for (let i = 0; i < deferred.length; i++) {
      const item = snapshot.imports[i];
      before[i] = item.kind === 'dynamic' ? 1 : 0;
      if (before[i] !== deferred[i]) importers.add(item.from);
    }
    this.changed = [...importers];
    this.built = new Reacher(index, before);
    this.now = new Reacher(index, deferred);
    this.known = asBuilt.get(snapshot) ?? new Map();
    asBuilt.set(snapshot, this.known);
  }

  of(starts: readonly number[]): Reach {
    const key = starts.join(' ');
    let reach = this.known.get(key);
    if (!reach) {
      reach = this.made(this.built, starts);
      if (this.known.size >= MOST_KNOWN) this.known.clear();
      this.known.set(key, reach);
    }
    const { bits } = reach;
    return this.changed.some((m) => has(bits, m)) ? this.made(this.now, starts) : reach;
  }

  private made(reacher: Reacher, starts: readonly number[]): Reach {
    const members = reacher.from(starts);
    return { members, bits: bitsOf(members, this.snapshot.modules.length) };
  }
}
