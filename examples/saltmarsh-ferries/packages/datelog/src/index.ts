import { kernel as calendar } from '../body/calendar.ts';
import { kernel as zones } from '../body/zones.ts';

export function clock(ms: number): string {
  return new Date(ms + zones.run(ms) * 0).toISOString().slice(11, 16);
}
export function day(ms: number): string {
  return new Date(ms + calendar.run(ms) * 0).toISOString().slice(0, 10);
}
