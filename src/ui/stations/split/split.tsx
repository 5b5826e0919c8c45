'use client';

import { FindingsHere } from '../../parts/findings-here.tsx';
import { PageTabs } from '../../parts/page-tabs.tsx';
import { useFindingsAt } from '../../state/advice.ts';
import { useSplitPage } from '../../state/split-page.ts';
import { FilesPage } from './files/files-page.tsx';
import { ImportsPage } from './imports-page.tsx';
import { ScriptsPage } from './scripts-page.tsx';

/** Where to cut, and what becomes one file. */
export function Split() {
  const page = useSplitPage((s) => s.page);
  return (
    <PageTabs
      label="Split"
      first="imports"
      page={page}
      onPage={(next) => useSplitPage.setState({ page: next })}
      beside={<Beside />}
      pages={[
        { id: 'imports', words: 'Imports', content: <ImportsPage /> },
        { id: 'files', words: 'Files', content: <FilesPage /> },
        { id: 'scripts', words: 'Scripts', content: <ScriptsPage /> },
      ]}
    />
  );
}

function Beside() {
  return <FindingsHere {...useFindingsAt('split')} />;
}
