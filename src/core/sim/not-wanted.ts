import type { LoadProgram } from '../load/types.ts';
import type { Timeline } from './types.ts';

/** Code that a trigger brought early is wanted only if a part that needs it was seen. */
export function notWanted({ requests, reveals }: Timeline, { parts }: LoadProgram): void {
  if (!requests.some((r) => r.early)) return;
  const wanted = new Set<number>();
  for (const { part, state } of reveals) {
    if (state !== 'shown') continue;
    for (const { resource } of parts[part].needs) wanted.add(resource);
  }
  for (const r of requests) if (r.early && !wanted.has(r.resource)) r.role = 'in case';
}
