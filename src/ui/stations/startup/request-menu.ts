import type { LandingView } from '../../../worker/views.ts';
import { size, time } from '../../parts/format.ts';
import { copying, type RowMenu } from '../../parts/menu/row-menu.ts';
import { ROLES } from '../../parts/roles.tsx';
import { goTo } from '../../state/stations.ts';

/** What can be done with a request of the waterfall. `onCause`: goes to the request that asked for it; null where none did that is shown. */
export function requestMenu(
  view: LandingView,
  index: number,
  onCause: (() => void) | null,
): Pick<RowMenu, 'of' | 'groups'> {
  const { name, address, role, bytes, discovered, sent, firstByte, end } = view.timeline.requests[index];
  const splitPoints = view.brings[index]?.splitPoints.length ?? 0;
  const line = [
    `${name}, ${ROLES[role].name}, ${size(bytes)}`,
    `found ${time(discovered)}, sent ${time(sent)}, first byte ${time(firstByte)}, complete ${time(end)}`,
  ].join(': ');
  return {
    of: name,
    groups: [
      [
        ...(onCause ? [{ words: 'Go to what asked for it', note: '←', run: onCause }] : []),
        ...(splitPoints > 0 ? [{ words: 'Show its split point in Split', run: () => goTo('split') }] : []),
        { words: 'Show it in the load sheet', run: () => goTo('load-sheet') },
      ],
      [copying('the address', address), copying('its times', line)],
    ],
  };
}
