import type { SyntaxNode } from '../reader/syntax.ts';
import type { Change } from './context.ts';
import { type EntryPoint, entryPoints } from './entry-points.ts';
import type { FileEdits } from './file-edits.ts';
import type { Binding, Reference } from './script-file.ts';
import { waitingPlace, writeWaiting } from './waits.ts';

/** Uses of a deferred import's names in code that can wait for it: gathered by the functions that do, so that each waits once. */
export class WaitingUses {
  private readonly waits = new Map<SyntaxNode, { points: EntryPoint[]; bindings: Set<Binding> }>();
  /** Names that functions between a use and those that wait need as well: these take them from the module. */
  private readonly shared = new Set<Binding>();

  constructor(
    private readonly edits: FileEdits,
    private readonly specifier: string,
  ) {}

  /** Notes a use; gives why it can't wait, or null. */
  add(binding: Binding, reference: Reference): string | null {
    const points = entryPoints(this.edits.file, binding.local, reference);
    if ('reason' in points) return points.reason;
    if (points.some((p) => p.reference !== reference)) this.shared.add(binding);
    for (const point of points) {
      const known = this.waits.get(point.place.fn) ?? { points: [], bindings: new Set() };
      known.points.push(point);
      known.bindings.add(binding);
      this.waits.set(point.place.fn, known);
    }
    return null;
  }

  /** The changes for all that was noted. */
  found(): { changes: Change[]; words: string[] } | { reason: string } {
    const { edits, shared } = this;
    const { file } = edits;
    const load = `import(${file.quoted(this.specifier)})`;
    const changes: Change[] = [];
    const words: string[] = [];
    for (const { points, bindings } of this.waits.values()) {
      const references = points.map((p) => p.reference);
      const waiting = waitingPlace(file, references, points[0].place);
      if ('reason' in waiting) return waiting;
      const own = [...bindings].filter((b) => !shared.has(b));
      const others = [...bindings].filter((b) => shared.has(b));
      const statements = [
        ...(own.length > 0 ? [`${taken(own)} = await ${load};`] : []),
        ...others.map((b) => `${b.local} = ${b.imported === '*' ? `await ${load}` : `(await ${load}).${b.imported}`};`),
      ];
      changes.push(() => writeWaiting(edits, waiting, statements));
      words.push(`imported where ${[...bindings].map((b) => b.local).join(', ')} is used`);
    }
    for (const { local, imported } of shared) {
      const whole = `typeof ${load}`;
      const type = imported === '*' ? whole : `${whole}.${imported}`;
      changes.push(() => edits.top(`let ${local}${file.isTyped ? `: ${type}` : ''};`));
    }
    return { changes, words };
  }
}

/** `const { a, b: c }` or `const all`, as names are taken from an imported module. */
export function taken(bindings: readonly Binding[]): string {
  const whole = bindings.find((b) => b.imported === '*');
  if (whole) return `const ${whole.local}`;
  const names = bindings.map((b) => (b.imported === b.local ? b.local : `${b.imported}: ${b.local}`));
  return `const { ${names.join(', ')} }`;
}
