import { byTask, type PageContext } from './page-context.ts';
import type { Then } from './pieces.ts';
import type { Cause } from './types.ts';

/** Begins all waits and calls back with the cause of the last one to be over; at once where there are none. */
export function afterAll(page: Pick<PageContext, 'clock'>, waits: ((next: Then) => void)[], then: Then): void {
  let left = waits.length;
  let last: Cause = byTask(page, 'trigger', 'nothing to wait for', -1);
  if (left === 0) {
    then(last);
    return;
  }
  for (const wait of waits) {
    wait((cause) => {
      if (cause.at >= last.at || last.request + last.task === -2) last = cause;
      if (--left === 0) then(last);
    });
  }
}
