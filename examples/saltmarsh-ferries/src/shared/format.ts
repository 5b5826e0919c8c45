import { clock, day } from '@saltmarsh/datelog';
import { fill, messages } from './messages';

export function leavesAt(ms: number): string {
  return clock(ms);
}
export function onDay(ms: number): string {
  return day(ms);
}
export function lateness(minutes: number): string {
  return minutes > 0 ? fill(messages.late, { minutes }) : messages.onTime;
}
export function money(pence: number): string {
  return `${(pence / 100).toFixed(2)} kr`;
}
