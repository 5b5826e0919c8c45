import type { Decision } from '../../core/plan/types.ts';
import type { Rehearsal } from '../../core/rehearsals/types.ts';
import type { ReadAs } from '../../core/snapshot/read-as.ts';
import type { SourcePatch } from '../../patch/types.ts';
import type { RehearsalInput } from '../../server/inputs.ts';
import type { ProjectView } from '../../server/projects.ts';
import type { ReadingState } from '../../server/reading-jobs.ts';
import type { RehearsalState, RehearsalsView } from '../../server/rehearsal-jobs.ts';
import type { TextHit } from '../../server/search.ts';
import type { Rescue } from '../../server/store-trouble.ts';
import type { StoredPlan } from '../../store/plans.ts';
import type { ProjectRow, StoredAmendments } from '../../store/projects.ts';

/** What the server answered when something can't be done. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    /** What is stored meanwhile, where somebody else was faster. */
    readonly current?: unknown,
    /** What can be done about a database that can't be used. */
    readonly rescues?: Rescue[],
  ) {
    super(`${title}. ${detail}`);
  }
}

function call<T>(method: string, address: string, body?: unknown): Promise<T> {
  if (body === undefined) return ask(address, { method });
  return ask(address, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
}

async function ask<T>(address: string, init: RequestInit): Promise<T> {
  let answer: Response;
  try {
    answer = await fetch(address, init);
  } catch {
    throw new Refusal(0, 'The server doesn’t answer', 'Check that it still runs; your changes are kept in this tab.');
  }
  if (answer.status === 204) return undefined as T;
  const content = (await answer.json().catch(() => ({}))) as {
    title?: string;
    detail?: string;
    at?: string;
    current?: unknown;
    rescues?: Rescue[];
  };
  if (answer.ok) return content as T;
  const where = content.at ? ` (${content.at})` : '';
  throw new Refusal(
    answer.status,
    content.title ?? 'That didn’t work',
    `${content.detail ?? ''}${where}`,
    content.current,
    content.rescues,
  );
}

/** What a folder or archive is to be read as, and its base address where the proposed one is wrong. */
export type How = { as?: ReadAs; base?: string; workspace?: string; starts?: string };

export const api = {
  search: (projectId: string, phrase: string) =>
    call<TextHit[]>('GET', `/api/projects/${projectId}/search?${new URLSearchParams({ q: phrase })}`),
  startReading: (what: ({ folder: string } & How) | { projectId: string; workspace?: string }) =>
    call<ReadingState>('POST', '/api/readings', what),
  readArchive: (name: string, archive: Blob, how: How) =>
    ask<ReadingState>(`/api/readings/archive?${new URLSearchParams({ name, ...how })}`, {
      method: 'POST',
      body: archive,
    }),
  reading: (id: string) => call<ReadingState>('GET', `/api/readings/${id}`),
  stopReading: (id: string) => call<ReadingState>('DELETE', `/api/readings/${id}`),
  rescue: (rescue: Rescue) => call<{ kept: string | null }>('POST', '/api/database', rescue),
  projects: () => call<ProjectRow[]>('GET', '/api/projects'),
  project: (id: string) => call<ProjectView>('GET', `/api/projects/${id}`),
  projectFile: async (id: string, withTexts: boolean): Promise<Blob> => {
    const answer = await fetch(`/api/projects/${id}/file${withTexts ? '?texts=yes' : ''}`).catch(() => null);
    if (!answer?.ok)
      throw new Refusal(answer?.status ?? 0, 'The project can’t be saved', 'Check that the server runs.');
    return answer.blob();
  },
  importProject: (fileName: string, text: string) => call<{ id: string }>('POST', '/api/projects', { fileName, text }),
  follow: (projectId: string, follows: boolean) =>
    call<{ follows: boolean }>('PUT', `/api/projects/${projectId}/changes`, { follows }),
  keepPlans: (projectId: string) =>
    call<{ taken: boolean; conflicts: string[] }>('POST', `/api/projects/${projectId}/kept`, {}),
  createPlan: (projectId: string, name: string, decisions: Decision[], basedOn?: string) =>
    call<StoredPlan>('POST', `/api/projects/${projectId}/plans`, { name, decisions, basedOn }),
  patch: (projectId: string, name: string, decisions: Decision[]) =>
    call<SourcePatch>('POST', `/api/projects/${projectId}/patch`, { name, decisions }),
  readBuild: (projectId: string, folder: string, name: string, decisions: Decision[]) =>
    call<ReadingState>('POST', `/api/projects/${projectId}/build`, { folder, name, decisions }),
  rehearsals: (projectId: string) => call<RehearsalsView>('GET', `/api/projects/${projectId}/rehearsals`),
  rehearse: (projectId: string, wished: RehearsalInput) =>
    call<RehearsalState>('POST', `/api/projects/${projectId}/rehearsals`, wished),
  rehearsal: (id: string) => call<RehearsalState>('GET', `/api/rehearsals/${id}`),
  stopRehearsal: (id: string) => call<RehearsalState>('DELETE', `/api/rehearsals/${id}`),
  forgetRehearsal: (projectId: string, id: string) =>
    call<void>('DELETE', `/api/projects/${projectId}/rehearsals/${id}`),
  keptRehearsal: (projectId: string, id: string) =>
    call<Rehearsal>('GET', `/api/projects/${projectId}/rehearsals/${id}`),
  savePlan: (id: string, version: number, change: { decisions?: Decision[]; name?: string; description?: string }) =>
    call<StoredPlan>('PUT', `/api/plans/${id}`, { version, ...change }),
  removePlan: (id: string) => call<void>('DELETE', `/api/plans/${id}`),
  saveAmendments: (projectId: string, amended: StoredAmendments) =>
    call<StoredAmendments>('PUT', `/api/projects/${projectId}/amendments`, amended),
  plan: (id: string) => call<StoredPlan>('GET', `/api/plans/${id}`),
};
