/** A set of candidates by what it takes up and what it comes to. */
export interface FrontierPoint<M> {
  set: number[];
  weight: number;
  /** Its cost, with the price of its candidates. */
  objective: number;
  measured: M;
}

/** Of all sets that it was told of those that no other one beats: each costs less than every one that takes up as much or less. */
export class Frontier<M> {
  /** By rising weight and falling cost. */
  readonly points: FrontierPoint<M>[] = [];

  note(point: FrontierPoint<M>): void {
    const { points } = this;
    const at = this.after(point.weight);
    // Of two that come to the same the first stays.
    if (at > 0 && points[at - 1].objective <= point.objective) return;
    const from = at > 0 && points[at - 1].weight === point.weight ? at - 1 : at;
    let to = at;
    while (to < points.length && points[to].objective >= point.objective) to++;
    points.splice(from, to - from, point);
  }

  /** The best set that takes up so much at most. */
  within(weight: number): FrontierPoint<M> | null {
    return this.points[this.after(weight) - 1] ?? null;
  }

  /** The position of the first that takes up more. */
  private after(weight: number): number {
    let low = 0;
    let high = this.points.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.points[middle].weight <= weight) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}
