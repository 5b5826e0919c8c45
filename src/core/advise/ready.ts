import type { Finding } from './types.ts';

/** Findings whose advice can be taken as it is, for the plan as it is, and saves time under the present conditions: in their order, the best first. */
export function readyFindings(findings: readonly Finding[]): Finding[] {
  return findings.filter((f) => f.basis.on === 'the plan' && !f.seen && f.cautions.length === 0 && f.effect.cost < 0);
}

/** By how much a finding’s change makes a landing interactive sooner, in ms; 0 where it doesn’t touch it. */
export function savedOn({ effect }: Pick<Finding, 'effect'>, pattern: string): number {
  const change = effect.routes.find((r) => r.pattern === pattern)?.interactive ?? 0;
  return Number.isFinite(change) ? Math.max(0, -change) : 0;
}
