'use client';

import { useRef } from 'react';
import type { LandingView } from '../../../worker/views.ts';
import { AsTable } from '../../parts/as-table.tsx';
import { size, time } from '../../parts/format.ts';
import { Message } from '../../parts/message.tsx';
import { PageTabs } from '../../parts/page-tabs.tsx';
import { ROLES } from '../../parts/roles.tsx';
import { Aside, StationGrid } from '../../parts/station-grid.tsx';
import { useWidth } from '../../parts/use-width.ts';
import { useLanding } from '../../state/landing.ts';
import { isMarked } from '../../state/selection.ts';
import { useStartupView } from '../../state/startup-view.ts';
import { useStationPage } from '../../state/station-page.ts';
import { useConditions, useWorkbench } from '../../state/workbench.ts';
import { Legend } from './legend.tsx';
import { MixPage } from './mix-page.tsx';
import { RehearsalPage } from './rehearsal/rehearsal-page.tsx';
import { RequestDetails } from './request-details.tsx';
import { Schematic } from './schematic.tsx';
import { Toolbar } from './toolbar.tsx';
import { UnderSection } from './under-section.tsx';
import { Waterfall } from './waterfall.tsx';
import { WhereTimeWent } from './where-time-went.tsx';

/** The startup: predicted of one landing and over a mix of visitors, and as it was run in a browser. */
export function Startup() {
  return (
    <PageTabs
      label="Startup"
      first="landing"
      {...useStationPage('startup')}
      pages={[
        { id: 'landing', words: 'One landing', content: <OneLanding /> },
        { id: 'mix', words: 'Over a mix', content: <MixPage /> },
        { id: 'rehearsed', words: 'Rehearsed', content: <RehearsalPage /> },
      ]}
    />
  );
}

/** One landing: the waterfall, what shows, the thread, the link, and where the time went. */
function OneLanding() {
  const view = useLanding((s) => s.now);
  const error = useLanding((s) => s.error);
  const route = useWorkbench((s) => s.route);
  const selection = useWorkbench((s) => s.selection);
  const conditions = useConditions();
  const zoom = useStartupView((s) => s.zoom);
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
    <StationGrid id="startup" aside={286}>
      <h1 className="sr-only">Startup of {route}</h1>
      <div className="flex min-h-0 min-w-0 flex-col">
        {view ? <Toolbar view={view} drawing={() => box.current?.querySelector('[data-picture]') ?? null} /> : null}
        <div
          ref={box}
          className={`min-h-0 flex-1 overflow-y-auto ${zoom === 1 ? 'overflow-x-hidden' : 'overflow-x-auto'}`}
        >
          {view ? (
            <>
              <Waterfall view={view} conditions={conditions} width={width} chosen={chosen} marked={marked} />
              <RequestTable view={view} />
            </>
          ) : (
            <Message title="Predicting the landing">This takes a moment at most.</Message>
          )}
        </div>
      </div>
      <Aside label="Details">
        {view ? <UnderSection view={view} /> : null}
        {view && chosen >= 0 ? <RequestDetails view={view} index={chosen} /> : null}
        {view ? <WhereTimeWent view={view} /> : null}
        {view ? <Schematic view={view} /> : null}
        {view ? <Legend view={view} /> : null}
      </Aside>
    </StationGrid>
  );
}

/** The waterfall in words and numbers. */
function RequestTable({ view: { timeline } }: { view: LandingView }) {
  return (
    <AsTable
      className="px-4 pb-4"
      words={3}
      heads={['request', 'why it travels', 'asked for by', 'hop', 'found', 'sent', 'first byte', 'complete', 'size']}
      rows={timeline.requests.map((r) => [
        r.name,
        ROLES[r.role].name,
        r.cause.what,
        r.hop,
        time(r.discovered),
        time(r.sent),
        time(r.firstByte),
        time(r.end),
        size(r.bytes),
      ])}
    />
  );
}
