'use client';

import { PageTabs } from '../../parts/page-tabs.tsx';
import { FIRST_SPLIT, useSplitPage } from '../../state/split-page.ts';
import { FilesPage } from './files/files-page.tsx';
import { ImportsPage } from './imports-page.tsx';
import { PicturePage } from './picture/picture-page.tsx';
import { ScriptsPage } from './scripts-page.tsx';

/** Where to cut, and what becomes one file. */
export function Split() {
  const page = useSplitPage((s) => s.page);
  return (
    <PageTabs
      label="Split"
      first={FIRST_SPLIT}
      page={page}
      onPage={(next) => useSplitPage.setState({ page: next })}
      pages={[
        { id: 'imports', words: 'Imports', content: <ImportsPage /> },
        { id: 'picture', words: 'Start and later', content: <PicturePage /> },
        { id: 'files', words: 'Files', content: <FilesPage /> },
        { id: 'scripts', words: 'Scripts', content: <ScriptsPage /> },
      ]}
    />
  );
}
