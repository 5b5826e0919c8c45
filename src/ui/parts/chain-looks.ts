import type { LinkKind } from '../../core/metrics/critical-chain.ts';

/** Colours of the ways in which time goes, and what each means. */
export const CHAIN_LOOKS: Record<LinkKind, { colour: string; words: string }> = {
  connecting: { colour: 'var(--faint)', words: 'finding and greeting the server' },
  server: { colour: '#c9bfae', words: 'the server thinks' },
  'round trips': { colour: 'var(--content)', words: 'on the way there and back' },
  transfer: { colour: 'var(--needed)', words: 'receiving, alone on the link' },
  'sharing the link': { colour: 'var(--on-demand)', words: 'receiving while others receive too' },
  'held back': { colour: 'var(--in-case)', words: 'more urgent requests go first' },
  running: { colour: 'var(--ink)', words: 'the thread runs script' },
  drawing: { colour: '#7d6a58', words: 'the thread draws parts of the screen, lays them out and paints' },
  'waiting for thread': { colour: 'var(--wasted)', words: 'the thread runs something else' },
  'waiting for a trigger': { colour: 'var(--hinted)', words: 'nothing has asked for it yet' },
  browser: { colour: 'var(--line)', words: 'the browser’s own work' },
};
