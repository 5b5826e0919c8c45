import type { StationId } from './stations.ts';

/** The kinds of things worth changing, as the trade knows them, each with the station at which it can be acted on. */
export const FINDINGS = {
  'route leak': { at: 'split' },
  'part in the start': { at: 'split' },
  staircase: { at: 'split' },
  'deferred first screen': { at: 'split' },
  'kept by sharing': { at: 'split' },
  'only on acts': { at: 'split' },
  'found late': { at: 'advice' },
  'hint that costs': { at: 'advice' },
  'script in the way': { at: 'split' },
  'small files': { at: 'split' },
  'data after code': { at: 'visits' },
  'unused styles': { at: 'inventory' },
  'styles of others': { at: 'inventory' },
  'other origin': { at: 'advice' },
  'nested splits': { at: 'split' },
  'two versions': { at: 'inventory' },
  copies: { at: 'split' },
  'unsteady screen': { at: 'visits' },
  'fails silently': { at: 'visits' },
  'mixed by deploys': { at: 'split' },
  'decision that costs': { at: 'split' },
} as const satisfies Record<string, { at: StationId }>;

export type FindingKind = keyof typeof FINDINGS;

export const FINDING_KINDS = Object.keys(FINDINGS) as FindingKind[];
