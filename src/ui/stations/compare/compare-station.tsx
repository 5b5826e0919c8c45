'use client';

import { Message } from '../../parts/message.tsx';
import { PageTabs } from '../../parts/page-tabs.tsx';
import { useCompareChoice, useCompared } from '../../state/compare.ts';
import { AcrossPage } from './across-page.tsx';
import { ChooseBar } from './choose-bar.tsx';
import { CurvesPage } from './curves-page.tsx';
import { DecisionsPage } from './decisions-page.tsx';
import { FiguresPage } from './figures-page.tsx';
import { RoutesPage } from './routes-page.tsx';
import { WaterfallsPage } from './waterfalls-page.tsx';

/** Plans beside one another: figures, routes, one measure across all of it, curves over a mix, waterfalls on one axis, and what each decision earned. */
export function CompareStation() {
  const page = useCompareChoice((s) => s.page);
  const compared = useCompared();
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <div>
        <h1 className="sr-only">Compare plans</h1>
        <ChooseBar />
      </div>
      {compared.plans.length < 2 ? (
        <Message title="One plan is nothing to compare">
          Choose a second one above. Make plans at the top of the workbench, or take a finding at the Advice station.
        </Message>
      ) : (
        <PageTabs
          label="Compare"
          first="figures"
          page={page}
          onPage={(next) => useCompareChoice.setState({ page: next })}
          pages={[
            { id: 'figures', words: 'Figures', content: <FiguresPage compared={compared} /> },
            { id: 'routes', words: 'Routes and actions', content: <RoutesPage compared={compared} /> },
            { id: 'across', words: 'Across', content: <AcrossPage compared={compared} /> },
            { id: 'curves', words: 'Over the mix', content: <CurvesPage /> },
            { id: 'waterfalls', words: 'Waterfalls', content: <WaterfallsPage /> },
            { id: 'decisions', words: 'Gain by decision', content: <DecisionsPage /> },
          ]}
        />
      )}
    </div>
  );
}
