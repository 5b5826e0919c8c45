/** Gives names that nobody has yet: the wished one, else with the next number; as quick for the thousandth of a name as for the first. */
export class FreeNames {
  private readonly taken = new Set<string>();
  private readonly next = new Map<string, number>();

  /** `base`, or where that is taken `numbered` with the first number, from 2, that makes it free. */
  give(base: string, numbered: (n: number) => string): string {
    let name = base;
    let n = this.next.get(base) ?? 2;
    while (this.taken.has(name)) name = numbered(n++);
    this.next.set(base, n);
    this.taken.add(name);
    return name;
  }
}
