import type { FindingKind } from './types.ts';

/** The station at which a finding can be acted on. */
export const STATION_OF: Record<FindingKind, 'inventory' | 'split' | 'visits' | 'hints'> = {
  'route leak': 'split',
  'part in the start': 'split',
  'kept by sharing': 'split',
  'only on acts': 'split',
  staircase: 'split',
  'deferred first screen': 'split',
  'small files': 'split',
  'script in the way': 'split',
  'found late': 'hints',
  'other origin': 'hints',
  'hint that costs': 'hints',
  'data after code': 'visits',
  'unused styles': 'inventory',
  'styles of others': 'inventory',
  'two versions': 'inventory',
  copies: 'split',
  'nested splits': 'split',
  'mixed by deploys': 'split',
  'decision that costs': 'split',
  'unsteady screen': 'visits',
  'fails silently': 'visits',
};
