'use client';

import { useEffect, useState } from 'react';
import { STATIONS, type StationId } from '../../core/vocabulary/stations.ts';
import type { FirstPage } from '../../server/first-look.ts';
import { wishesOf } from '../../worker/choice.ts';
import { onBreakdown } from '../../worker/client.ts';
import { loadChoiceList } from '../parts/choice.tsx';
import { RowMenus } from '../parts/menu/row-menus.tsx';
import { Message } from '../parts/message.tsx';
import { RoleTextures } from '../parts/roles.tsx';
import { TermsProvider } from '../parts/term.tsx';
import { loadNotices, toast } from '../parts/toast.ts';
import { useAdviceUpdates } from '../state/advice.ts';
import { useAmendmentUpdates } from '../state/amendments.ts';
import { Refusal } from '../state/api.ts';
import { useFollow } from '../state/following.ts';
import { useLandingUpdates } from '../state/landing.ts';
import { useLimitUpdates } from '../state/limits.ts';
import { beginAnew, openProject } from '../state/open-project.ts';
import { useStations } from '../state/stations.ts';
import { hearTabs } from '../state/tabs.ts';
import { useWork } from '../state/work.ts';
import { useWorkbench } from '../state/workbench.ts';
import { selectionOf, takeWishes, useAddress } from './address.ts';
import { AppBanner } from './app-banner.tsx';
import { CommandKey } from './commands/command-key.tsx';
import { ConflictBar } from './conflict-bar.tsx';
import { useDrop } from './drop.ts';
import { Failure } from './failure.tsx';
import { FollowLine } from './follow-line.tsx';
import { Guide } from './guide/guide.tsx';
import { LiveStrip } from './live-strip.tsx';
import { SHEET_LOADS, Sheets } from './sheets/sheets.tsx';
import { useShortcuts } from './shortcuts.ts';
import { StandingLine } from './standing-line.tsx';
import { Station } from './station.tsx';
import { StationLine } from './station-line.tsx';
import { fetchAhead } from './station-views.tsx';
import { TopBar } from './top-bar.tsx';

/** The workbench around every station: loads the project, keeps the landing up to date. */
export function Workbench({
  projectId,
  station,
  first,
}: {
  projectId: string;
  station: StationId;
  /** What the server sent along, to be shown before the app is here. */
  first: FirstPage | null;
}) {
  const [at, setAt] = useState(station);
  const { failure, ready } = useProject(projectId, first);
  const app = useWorkbench((s) => s.app);
  const loaded = useWorkbench((s) => s.project?.id) === projectId && app !== null;
  useShortcuts(setAt);
  useEffect(() => useStations.setState({ go: setAt }), []);
  const dropping = useDrop((words) => toast.error(words));

  return (
    <TermsProvider>
      <div
        data-open={loaded || undefined}
        data-ready={(loaded && ready) || undefined}
        className="workbench grid h-screen min-h-[600px] min-w-[640px] grid-rows-[auto_auto_minmax(0,1fr)_auto_118px]"
      >
        <Background projectId={projectId} at={at} loaded={loaded} />
        <SkipLink />
        <RoleTextures />
        <TopBar loaded={loaded} />
        <div>
          <ConflictBar />
          {loaded ? <AppBanner /> : null}
        </div>
        <div className="grid min-h-0 grid-cols-[148px_minmax(0,1fr)]">
          <StationLine at={at} onGo={setAt} />
          <main
            id={STATION}
            tabIndex={-1}
            className="relative outline-none flex min-h-0 min-w-0 flex-col"
            aria-label={STATIONS[at].name}
          >
            {loaded && !failure ? <StandingLine at={at} /> : null}
            <div className="min-h-0 flex-1">
              {failure ? (
                <Failure failure={failure} />
              ) : !loaded ? (
                <Message title="Opening the project">Reading the snapshot and predicting the first landing.</Message>
              ) : (
                <Station
                  key={projectId}
                  at={at}
                  routes={app.routes.length}
                  modules={app.modules}
                  splittable={app.splittable}
                />
              )}
            </div>
          </main>
        </div>
        <FollowLine />
        <LiveStrip first={first?.landing ?? null} />
        {loaded ? <Guide station={at} /> : null}
        <Sheets />
        {loaded ? <CommandKey /> : null}
        <RowMenus />
        {dropping ? (
          <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center rounded border-2 border-dashed border-ink bg-sheet/80 text-base font-semibold">
            Drop it to read the app
          </div>
        ) : null}
      </div>
    </TermsProvider>
  );
}

const STATION = 'station';

/** For who comes by keyboard: past the choices at the top and the line of stations. */
function SkipLink() {
  return (
    <a
      href={`#${STATION}`}
      onClick={(event) => {
        // The address stays what it says.
        event.preventDefault();
        document.getElementById(STATION)?.focus();
      }}
      className="sr-only z-50 rounded bg-ink px-3 py-1.5 text-on-ink focus:not-sr-only focus:fixed focus:top-2 focus:left-2"
    >
      Skip to the station
    </a>
  );
}

/**
 * What goes on whatever is shown: landing, advice, limits and address follow plan and choice. It draws nothing, so that
 * the frame isn't drawn again with every decision and selection.
 */
function Background({ projectId, at, loaded }: { projectId: string; at: StationId; loaded: boolean }) {
  useAmendmentUpdates();
  useLandingUpdates();
  useAdviceUpdates();
  useLimitUpdates();
  useFollow();
  useNotices();
  useAddress(projectId, at, loaded);
  useEffect(() => onBreakdown(beginAnew), []);
  useEffect(
    () =>
      hearTabs(
        ({ planId, version }) => {
          const mine = useWorkbench.getState().project?.plans.find((p) => p.id === planId);
          return mine !== undefined && mine.version < version;
        },
        (plan) => useWorkbench.getState().takeFromTab(plan),
      ),
    [],
  );
  return null;
}

/** Tells what happened without the person doing it. */
function useNotices(): void {
  const notices = useWorkbench((s) => s.notices);
  useEffect(() => {
    if (notices.length === 0) return;
    for (const { words, stays } of notices)
      toast(words, stays ? { id: words, duration: Number.POSITIVE_INFINITY, closeButton: true } : { duration: 10_000 });
    useWorkbench.setState({ notices: [] });
  }, [notices]);
  // What somebody began and nobody waits for must not fail in silence.
  useEffect(() => {
    const onLost = ({ reason }: PromiseRejectionEvent) =>
      toast.error(reason instanceof Error ? reason.message : String(reason));
    addEventListener('unhandledrejection', onLost);
    return () => removeEventListener('unhandledrejection', onLost);
  }, []);
}

type OpenFailure = Pick<Refusal, 'title' | 'detail' | 'rescues'>;

/** Loads a project into the store and its snapshot into the worker; gives what went wrong, and whether the thread that works for the page has the app. */
function useProject(projectId: string, first: FirstPage | null): { failure: OpenFailure | null; ready: boolean } {
  const [failure, setFailure] = useState<OpenFailure | null>(null);
  const [ready, setReady] = useState(false);
  useWork(
    async (wanted) => {
      const { search } = location;
      takeWishes(search);
      const shown = () => useWorkbench.getState().choose({ selection: selectionOf(search) });
      await openProject(projectId, { wishes: () => wishesOf(search), wanted, first, shown });
      if (!wanted()) return;
      setReady(true);
      fetchAhead([loadNotices, loadChoiceList], SHEET_LOADS);
    },
    (error) =>
      setFailure(error instanceof Refusal ? error : { title: 'The project can’t be opened', detail: error.message }),
    [projectId],
  );
  return { failure, ready };
}
