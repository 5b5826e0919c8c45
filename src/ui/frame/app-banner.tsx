'use client';

import { useState } from 'react';
import { firstOf } from '../../core/text/first-of.ts';
import type { StationId } from '../../core/vocabulary/stations.ts';
import type { AppView } from '../../worker/views.ts';
import { readAgain } from '../state/read-again.ts';
import { useSplitPage } from '../state/split-page.ts';
import { useStations } from '../state/stations.ts';
import { useWorkbench } from '../state/workbench.ts';

/** So many imports without an end, or such a share of all, make every figure doubtful. */
const MANY = 5;
const LARGE_SHARE = 0.01;
const MOST_NAMED = 3;

interface Lack {
  words: string;
  /** What the person can do about it, and where. */
  act?: { words: string } & ({ station: StationId; page?: string } | { workspace: string });
}

/** What is missing of an app, so that its figures can't be right, with what to do about each. */
export function AppBanner() {
  const app = useWorkbench((s) => s.app);
  const [hidden, setHidden] = useState<AppView | null>(null);
  const go = useStations((s) => s.go);
  const project = useWorkbench((s) => s.project);
  if (!app || hidden === app) return null;
  const lacks = lacksOf(app);
  if (lacks.length === 0) return null;
  return (
    <section aria-label="What is missing" className="flex items-start gap-4 border-b border-line bg-mark px-4 py-1.5">
      <ul className="min-w-0 flex-1">
        {lacks.map(({ words, act }) => (
          <li key={words}>
            {words}{' '}
            {act ? (
              <button
                type="button"
                className="underline"
                onClick={() => {
                  if ('workspace' in act) {
                    if (project) void readAgain(project, act.workspace);
                    return;
                  }
                  if (act.page) useSplitPage.setState({ page: act.page });
                  go(act.station);
                }}
              >
                {act.words}
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      <button type="button" className="shrink-0 text-soft underline hover:text-ink" onClick={() => setHidden(app)}>
        hide
      </button>
    </section>
  );
}

export function lacksOf(app: AppView): Lack[] {
  const lacks: Lack[] = [];
  if (app.realms.length === 0)
    lacks.push({
      words:
        'No entry was found: what starts this app isn’t known, so nothing of it can be predicted. Read it again from the folder that holds its page or its package description.',
    });
  else if (app.routes.length === 0)
    lacks.push({
      words: 'No route was found in the code, so there is no landing to predict.',
      act: { words: 'Name one by hand', station: 'inventory' },
    });
  if (app.workspace !== null)
    lacks.push({
      words: `Imports lead out of the folder that was read, to packages of the workspace around it (${app.workspace}). What they bring is missing from every figure.`,
      act: { words: 'Read the workspace too', workspace: app.workspace },
    });
  if (app.missing.length > 0)
    lacks.push({
      words: `${firstOf(app.missing, MOST_NAMED)} ${app.missing.length === 1 ? 'isn’t' : 'aren’t'} installed where the app was read: every size and time is too small by what ${app.missing.length === 1 ? 'it weighs' : 'they weigh'}, and nobody knows how much that is.`,
      act: { words: 'See who imports them', station: 'inventory' },
    });
  else if (app.workspace === null && (app.lost >= MANY || app.lost > app.imports * LARGE_SHARE))
    lacks.push({
      words: `${app.lost} of ${app.imports} imports couldn’t be resolved: what they bring is missing from every figure.`,
      act: { words: 'See which', station: 'inventory' },
    });
  if (app.failed > 0)
    lacks.push({
      words: `${app.failed} ${app.failed === 1 ? 'file' : 'files'} could not be read in full.`,
      act: { words: 'See which', station: 'inventory' },
    });
  if (app.unknownSizes.length > 0)
    lacks.push({
      words: `The size of ${firstOf(app.unknownSizes, MOST_NAMED)} isn’t known: times and “other scripts” are at least what is shown.`,
      act: { words: 'Give it', station: 'split', page: 'scripts' },
    });
  return lacks;
}
