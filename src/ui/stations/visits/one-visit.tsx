'use client';

import { analyst } from '../../../worker/client.ts';
import type { MomentView } from '../../../worker/services/visits.ts';
import { Message } from '../../parts/message.tsx';
import { Aside, StationGrid } from '../../parts/station-grid.tsx';
import { useNewest } from '../../state/newest.ts';
import { changeStep, useAsPlayed, useVisit, useVisitChoice } from '../../state/visit.ts';
import { useConditions } from '../../state/workbench.ts';
import { MomentList } from './moment-list.tsx';
import { MomentSheet } from './moment-sheet.tsx';
import { MomentWaterfall } from './moment-waterfall.tsx';
import { NextMenu } from './next-menu.tsx';
import { VisitBar } from './visit-bar.tsx';

/** One visit, moment by moment: what each asks for, how long the person waits, and what they look at meanwhile. */
export function OneVisit() {
  const { visit, own, error } = useVisit();
  const played = useAsPlayed(visit);
  const picked = useVisitChoice((s) => s.step);
  const atOnce = useVisitChoice((s) => s.atOnce);
  const { device } = useConditions();
  const { found: view, error: refused } = useNewest(
    (now) => (played ? analyst().visits.play(now.plan, played, now.conditions) : Promise.resolve(null)),
    JSON.stringify(played),
  );
  if (error) return <Message title="The visits can’t be worked out">{error}</Message>;
  if (!visit || !played)
    return <Message title="Working out a typical visit">From the shares of moves and acts.</Message>;
  const moment = view ? momentAt(view.moments, picked) : undefined;
  const chosen = moment?.step ?? -1;
  return (
    <StationGrid id="visit" aside={290}>
      <h1 className="sr-only">A visit from {visit.landing}</h1>
      <div className="flex min-h-0 min-w-0 flex-col">
        <VisitBar visit={visit} own={own} view={view} />
        {refused ? (
          <Message title="This visit can’t be played">
            <p>{refused}</p>
            <button
              type="button"
              className="mt-3 text-ink underline"
              onClick={() => useVisitChoice.setState({ script: null, step: null })}
            >
              Back to the typical visit
            </button>
          </Message>
        ) : view ? (
          <>
            <div className="min-h-0 flex-1 overflow-y-auto">
              <MomentList
                visit={played}
                view={view}
                chosen={chosen}
                touch={device.touch}
                fixed={atOnce}
                onChoose={(step) => useVisitChoice.setState({ step })}
                onLead={(step, leadMs) => changeStep(visit, step, { leadMs })}
              />
              <div className="px-4 py-2 pl-[52px]">
                {view.stuck ? (
                  <p className="mb-2 text-worse" role="alert">
                    The visit ends here: {view.stuck.reason}.
                  </p>
                ) : null}
                <NextMenu visit={visit} next={view.next} />
              </div>
            </div>
            {moment ? (
              <section
                aria-label="What travels for the chosen moment"
                className="max-h-[36%] shrink-0 overflow-y-auto border-t border-line bg-band"
              >
                <MomentWaterfall moment={moment} page={view.pages[moment.page]} />
              </section>
            ) : null}
          </>
        ) : (
          <Message title="Playing the visit">This takes a moment at most.</Message>
        )}
      </div>
      <Aside label="Details">{moment ? <MomentSheet visit={visit} moment={moment} /> : null}</Aside>
    </StationGrid>
  );
}

/** The moment that was chosen; before anybody chose, the one with the longest wait after the landing. */
function momentAt(moments: readonly MomentView[], picked: number | null): MomentView {
  const chosen = picked === null ? undefined : moments.findLast((m) => m.step === picked);
  if (chosen) return chosen;
  const waited = moments.filter((m) => m.step >= 0 && Number.isFinite(m.wait));
  return waited.reduce((worst, m) => (m.wait > worst.wait ? m : worst), waited[0] ?? moments[0]);
}
