'use client';

import { useEffect, useState } from 'react';
import { Message } from '../parts/message.tsx';
import { RoleTextures } from '../parts/roles.tsx';
import { Refusal } from '../state/api.ts';
import { useLandingUpdates } from '../state/landing.ts';
import { openProject } from '../state/open-project.ts';
import { useWorkbench } from '../state/workbench.ts';
import { InventoryStation } from '../stations/inventory/inventory-station.tsx';
import { Split } from '../stations/split/split.tsx';
import { Startup } from '../stations/startup/startup.tsx';
import { useAddress, wishesOf } from './address.ts';
import { ConflictBar } from './conflict-bar.tsx';
import { LiveStrip } from './live-strip.tsx';
import { ShortcutSheet } from './shortcut-sheet.tsx';
import { useShortcuts } from './shortcuts.ts';
import { StationLine } from './station-line.tsx';
import type { StationId } from './station-list.ts';
import { TopBar } from './top-bar.tsx';

/** The workbench around every station: loads the project, keeps the landing up to date. */
export function Workbench({ projectId, station }: { projectId: string; station: StationId }) {
  const [at, setAt] = useState(station);
  const failure = useProject(projectId);
  const app = useWorkbench((s) => s.app);
  const loaded = useWorkbench((s) => s.project?.id) === projectId && app !== null;
  useLandingUpdates();
  useAddress(projectId, at, loaded);
  useShortcuts(setAt);

  return (
    <div className="grid h-screen min-h-[560px] min-w-[960px] grid-rows-[44px_auto_minmax(0,1fr)_118px]">
      <RoleTextures />
      <TopBar loaded={loaded} />
      <ConflictBar />
      <div className="grid min-h-0 grid-cols-[148px_minmax(0,1fr)]">
        <StationLine at={at} onGo={setAt} />
        <main className="min-h-0 min-w-0" aria-label={at}>
          {failure ? (
            <Message title={failure.title}>
              <p>{failure.detail}</p>
              <button type="button" className="mt-3 underline" onClick={() => location.reload()}>
                Try again
              </button>
              <a className="ml-4 underline" href="/">
                Open the sample
              </a>
            </Message>
          ) : !loaded ? (
            <Message title="Opening the project">Reading the snapshot and predicting the first landing.</Message>
          ) : app.routes.length === 0 ? (
            <Message title="This snapshot has no routes">
              Yokeline found {app.modules} modules but no route table. Add one to the code, or open another project from
              the top left.
            </Message>
          ) : at === 'inventory' ? (
            <InventoryStation onGo={setAt} />
          ) : at === 'startup' ? (
            <Startup />
          ) : (
            <Split />
          )}
        </main>
      </div>
      <LiveStrip />
      <ShortcutSheet />
    </div>
  );
}

/** Loads a project into the store and its snapshot into the worker; gives what went wrong. */
function useProject(projectId: string): { title: string; detail: string } | null {
  const [failure, setFailure] = useState<{ title: string; detail: string } | null>(null);
  useEffect(() => {
    let current = true;
    const load = async () => {
      try {
        await openProject(projectId, wishesOf(location.search), () => current);
      } catch (error) {
        if (!current) return;
        setFailure(
          error instanceof Refusal
            ? { title: error.title, detail: error.detail }
            : { title: 'The project can’t be opened', detail: error instanceof Error ? error.message : String(error) },
        );
      }
    };
    void load();
    return () => {
      current = false;
    };
  }, [projectId]);
  return failure;
}
