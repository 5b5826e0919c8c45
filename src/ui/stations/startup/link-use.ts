import type { RequestRecord, RequestRole } from '../../../core/sim/types.ts';

export interface LinkBin {
  from: number;
  to: number;
  /** Share of the downlink by role, in drawing order; adds up to at most 1. */
  shares: { role: RequestRole; share: number }[];
}

const ORDER: RequestRole[] = ['content', 'needed', 'hinted', 'on demand', 'in case', 'wasted'];

/** How full the downlink was over time, by role, in bins of equal length. */
export function linkUse(requests: RequestRecord[], downKbps: number, until: number, bins: number): LinkBin[] {
  const length = until / bins;
  const bytes = ORDER.map(() => new Float64Array(bins));
  for (const r of requests) {
    const row = bytes[ORDER.indexOf(r.role)];
    for (const piece of r.pieces) {
      const span = Math.max(0.001, piece.to - piece.from);
      const first = Math.max(0, Math.floor(piece.from / length));
      const last = Math.min(bins - 1, Math.floor(piece.to / length));
      for (let b = first; b <= last; b++) {
        const overlap = Math.min(piece.to, (b + 1) * length) - Math.max(piece.from, b * length);
        if (overlap > 0) row[b] += (piece.bytes * overlap) / span;
      }
    }
  }
  const capacity = (downKbps / 8) * length;
  return Array.from({ length: bins }, (_, b) => ({
    from: b * length,
    to: (b + 1) * length,
    shares: ORDER.flatMap((role, i) => (bytes[i][b] > 0 ? [{ role, share: Math.min(1, bytes[i][b] / capacity) }] : [])),
  }));
}
