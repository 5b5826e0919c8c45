import { linear } from '@saltmarsh/tidewright';

const LOW = 0.4;
const HIGH = 3.1;

/** Height of the water in metres at a share of the tide. */
export function tideLevel(share: number): number {
  return linear(LOW, HIGH, share);
}
export function tideWord(share: number): string {
  const level = tideLevel(share);
  return level < 1 ? 'low' : level > 2.4 ? 'high' : 'mid';
}
