'use client';

import { sameApp } from '../../core/amend/amend.ts';
import { type Amendments, NO_AMENDMENTS } from '../../core/amend/types.ts';
import type { RemoteAnalyst } from '../../worker/client.ts';
import { helpers, longAnalyst } from '../../worker/client.ts';
import { useWorkbench } from './workbench.ts';

interface Held {
  of: string;
  amendments: Amendments;
}

/** What each analyst holds, by its place: the long one first, then its helpers. */
let held: (Held | undefined)[] = [];
let loading: Promise<unknown> = Promise.resolve();

/** The threads are others: what they held is gone. */
export function forgetLongWork(): void {
  held = [];
}

/**
 * The analyst for what takes long, with the project that is open and its corrections laid over it. Loads it again only when
 * these have changed since.
 */
export async function longWork(): Promise<RemoteAnalyst> {
  const [analyst] = await prepared([longAnalyst()]);
  return analyst;
}

/** The same with those who help it, the long analyst first; alone where there is no core for others. */
export function longCrew(): Promise<RemoteAnalyst[]> {
  return prepared([longAnalyst(), ...helpers(useWorkbench.getState().app?.modules ?? 0)]);
}

async function prepared(crew: RemoteAnalyst[]): Promise<RemoteAnalyst[]> {
  const { project } = useWorkbench.getState();
  if (!project) throw new Error('No project is open.');
  const of = `${project.id} ${project.snapshotId}`;
  const { amendments = NO_AMENDMENTS } = project.amended;
  const address = `${location.origin}/api/projects/${project.id}/snapshot`;
  loading = loading
    .catch(() => {})
    .then(() =>
      Promise.all(
        crew.map(async (analyst, at) => {
          if (held[at]?.of !== of) {
            await analyst.open(address);
            held[at] = { of, amendments: NO_AMENDMENTS };
          }
          if (!sameApp(held[at]!.amendments, amendments)) await analyst.amend(amendments);
          held[at] = { of, amendments };
        }),
      ),
    );
  await loading;
  return crew;
}

let runs = 0;

/** A name for work that several do together. */
export function newRun(): string {
  runs++;
  return `run ${runs}`;
}

/** Gives each of a crew its share of a list, every so-many-th item; tells what each made of it, with the items' places. */
export async function sharedOut<T, R>(
  crew: readonly RemoteAnalyst[],
  list: readonly T[],
  work: (analyst: RemoteAnalyst, share: T[]) => Promise<R>,
): Promise<{ places: number[]; made: R }[]> {
  const shares = crew
    .map((analyst, own) => ({ analyst, places: [...list.keys()].filter((at) => at % crew.length === own) }))
    .filter((s) => s.places.length > 0);
  return Promise.all(
    shares.map(async ({ analyst, places }) => ({
      places,
      made: await work(
        analyst,
        places.map((at) => list[at]),
      ),
    })),
  );
}
