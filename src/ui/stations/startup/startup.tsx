'use client';

import { useRef } from 'react';
import { Message } from '../../parts/message.tsx';
import { useWidth } from '../../parts/use-width.ts';
import { useLanding } from '../../state/landing.ts';
import { isMarked } from '../../state/selection.ts';
import { conditionsOf, useWorkbench } from '../../state/workbench.ts';
import { Legend } from './legend.tsx';
import { RequestDetails } from './request-details.tsx';
import { Waterfall } from './waterfall.tsx';
import { WhereTimeWent } from './where-time-went.tsx';

/** The predicted startup of a landing: the waterfall, what shows, the thread, the link, and where the time went. */
export function Startup() {
  const view = useLanding((s) => s.now);
  const error = useLanding((s) => s.error);
  const route = useWorkbench((s) => s.route);
  const selection = useWorkbench((s) => s.selection);
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const cache = useWorkbench((s) => s.cache);
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 840);
  if (error) return <Message title="This landing can’t be predicted">{error}</Message>;
  const marked = new Set(
    view?.timeline.requests.flatMap((r, i) =>
      (selection?.kind === 'request' && r.address === selection.address) || isMarked(selection, view.brings[i])
        ? [i]
        : [],
    ),
  );
  const [chosen = -1] = marked;
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_286px]">
      <h1 className="sr-only">Startup of {route}</h1>
      <div ref={box} className="min-h-0 min-w-0 overflow-x-hidden overflow-y-auto">
        {view ? (
          <Waterfall
            view={view}
            conditions={conditionsOf({ linkId, deviceId, cache })}
            width={width}
            chosen={chosen}
            marked={marked}
          />
        ) : (
          <Message title="Predicting the landing">This takes a moment at most.</Message>
        )}
      </div>
      <aside aria-label="Details" className="min-h-0 overflow-y-auto border-l border-line px-4 py-4">
        {view && chosen >= 0 ? <RequestDetails view={view} index={chosen} /> : null}
        {view ? <WhereTimeWent view={view} /> : null}
        {view ? <Legend view={view} /> : null}
      </aside>
    </div>
  );
}
