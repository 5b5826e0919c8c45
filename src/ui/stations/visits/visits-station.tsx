'use client';

import type { WishRow } from '../../../core/visitors/expect.ts';
import type { VisitStep } from '../../../core/visits/types.ts';
import { FindingsHere } from '../../parts/findings-here.tsx';
import { PageTabs } from '../../parts/page-tabs.tsx';
import { useFindingsAt } from '../../state/advice.ts';
import { useVisitChoice } from '../../state/visit.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { BoardPage } from './board-page.tsx';
import { OneVisit } from './one-visit.tsx';

const REST_MS = 4000;

/** What happens after the landing: one visit played through, and what all visitors can expect. */
export function Visits() {
  const page = useVisitChoice((s) => s.page);
  const setPage = (next: string) => useVisitChoice.setState({ page: next === 'all' ? 'all' : 'one' });
  const choose = useWorkbench((s) => s.choose);
  const play = (row: WishRow) => {
    choose({ route: row.route });
    useVisitChoice.setState({
      script: { name: '', landing: row.route, holds: [], steps: [stepOf(row)] },
      step: 0,
      page: 'one',
    });
  };
  return (
    <PageTabs
      label="Visits"
      beside={<Beside />}
      first="one"
      page={page}
      onPage={setPage}
      pages={[
        { id: 'one', words: 'One visit', content: <OneVisit /> },
        { id: 'all', words: 'All visitors', content: <BoardPage onPlay={play} /> },
      ]}
    />
  );
}

/** The move or act as the only step of a visit. */
function stepOf({ kind, to, hesitation, inside }: WishRow): VisitStep {
  const pause = { dwellMs: REST_MS, leadMs: Math.round(hesitation.medianMs) };
  if (kind === 'move') return { does: 'move', to, by: inside ? 'inside' : 'document', holds: [], ...pause };
  return { does: kind, part: to, ...pause, ...(kind === 'scroll' ? { leadMs: 0 } : {}) };
}

function Beside() {
  return <FindingsHere {...useFindingsAt('visits')} />;
}
