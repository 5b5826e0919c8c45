/** A network with capacities, filled by Dinic's method (1970): shortest paths in layers until none is left. */
export class Flow {
  private readonly first: Int32Array;
  private readonly next: number[] = [];
  private readonly to: number[] = [];
  private readonly room: number[] = [];

  constructor(private readonly nodes: number) {
    this.first = new Int32Array(nodes).fill(-1);
  }

  /** Adds a link; gives its number. */
  link(from: number, to: number, capacity: number): number {
    const at = this.to.length;
    this.to.push(to, from);
    this.room.push(capacity, 0);
    this.next.push(this.first[from], this.first[to]);
    this.first[from] = at;
    this.first[to] = at + 1;
    return at;
  }

  /** Sends as much as fits; gives how much, Infinity when a path has no limit. */
  fill(source: number, sink: number): number {
    let sum = 0;
    for (;;) {
      const layer = this.layers(source);
      if (layer[sink] < 0) return sum;
      const cursor = this.first.slice();
      for (;;) {
        const sent = this.push(source, sink, layer, cursor);
        if (sent === 0) break;
        if (sent === Number.POSITIVE_INFINITY) return sent;
        sum += sent;
      }
    }
  }

  /** 1 for nodes that still can be reached once the network is filled: the near side of a minimum cut. */
  reachable(source: number): Uint8Array {
    return Uint8Array.from(this.layers(source), (l) => (l >= 0 ? 1 : 0));
  }

  private layers(source: number): Int32Array {
    const layer = new Int32Array(this.nodes).fill(-1);
    layer[source] = 0;
    const open = [source];
    for (const n of open) {
      for (let e = this.first[n]; e >= 0; e = this.next[e]) {
        if (this.room[e] <= 0 || layer[this.to[e]] >= 0) continue;
        layer[this.to[e]] = layer[n] + 1;
        open.push(this.to[e]);
      }
    }
    return layer;
  }

  /** One path along the layers, walked without recursion: import chains can be long. */
  private push(source: number, sink: number, layer: Int32Array, cursor: Int32Array): number {
    const path: number[] = [];
    let at = source;
    while (at !== sink) {
      let e = cursor[at];
      while (e >= 0 && (this.room[e] <= 0 || layer[this.to[e]] !== layer[at] + 1)) e = this.next[e];
      cursor[at] = e;
      if (e >= 0) {
        path.push(e);
        at = this.to[e];
        continue;
      }
      const back = path.pop();
      if (back === undefined) return 0;
      at = this.to[back ^ 1];
      cursor[at] = this.next[cursor[at]];
    }
    let least = Number.POSITIVE_INFINITY;
    for (const e of path) least = Math.min(least, this.room[e]);
    if (least === Number.POSITIVE_INFINITY) return least;
    for (const e of path) {
      this.room[e] -= least;
      this.room[e ^ 1] += least;
    }
    return least;
  }
}
