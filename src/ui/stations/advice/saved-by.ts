import type { Finding } from '../../../core/advise/types.ts';

/** What a finding saves per visit in ms, here or on the link that it is told for. */
export function savedBy({ basis, effect }: Pick<Finding, 'basis' | 'effect'>): number {
  return basis.on === 'a link' ? basis.saves : -effect.cost;
}
