'use client';

import { PageTabs } from '../../parts/page-tabs.tsx';
import { useStationPage } from '../../state/station-page.ts';
import { ChoosePage } from './choose-page.tsx';
import { FindingsPage } from './findings-page.tsx';
import { HintsPage } from './hints-page.tsx';

/** What is worth changing: every finding and every hint by itself, and changes chosen together. */
export function AdviceStation() {
  return (
    <PageTabs
      label="Advice"
      first="findings"
      {...useStationPage('advice')}
      pages={[
        { id: 'findings', words: 'Findings', content: <FindingsPage /> },
        { id: 'hints', words: 'Each hint', content: <HintsPage /> },
        { id: 'choose', words: 'Choose for me', content: <ChoosePage /> },
      ]}
    />
  );
}
