import type { Decision } from '../../core/plan/types.ts';
import type { ProjectView } from '../../server/projects.ts';
import type { ReadingState } from '../../server/reading-jobs.ts';
import type { TextHit } from '../../server/search.ts';
import type { StoredPlan } from '../../store/plans.ts';

/** What the server answered when something can't be done. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly current?: StoredPlan,
  ) {
    super(`${title}. ${detail}`);
  }
}

async function call<T>(method: string, address: string, body?: unknown): Promise<T> {
  let answer: Response;
  try {
    answer = await fetch(address, {
      method,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new Refusal(0, 'The server doesn’t answer', 'Check that it still runs; your changes are kept in this tab.');
  }
  if (answer.status === 204) return undefined as T;
  const content = (await answer.json().catch(() => ({}))) as {
    title?: string;
    detail?: string;
    at?: string;
    current?: StoredPlan;
  };
  if (answer.ok) return content as T;
  const where = content.at ? ` (${content.at})` : '';
  throw new Refusal(
    answer.status,
    content.title ?? 'That didn’t work',
    `${content.detail ?? ''}${where}`,
    content.current,
  );
}

export const api = {
  search: (projectId: string, phrase: string) =>
    call<TextHit[]>('GET', `/api/projects/${projectId}/search?${new URLSearchParams({ q: phrase })}`),
  startReading: (what: { folder: string } | { projectId: string }) => call<ReadingState>('POST', '/api/readings', what),
  reading: (id: string) => call<ReadingState>('GET', `/api/readings/${id}`),
  stopReading: (id: string) => call<ReadingState>('DELETE', `/api/readings/${id}`),
  projects: () => call<{ id: string; name: string }[]>('GET', '/api/projects'),
  project: (id: string) => call<ProjectView>('GET', `/api/projects/${id}`),
  importProject: (fileName: string, text: string) => call<{ id: string }>('POST', '/api/projects', { fileName, text }),
  createPlan: (projectId: string, name: string, decisions: Decision[]) =>
    call<StoredPlan>('POST', `/api/projects/${projectId}/plans`, { name, decisions }),
  savePlan: (id: string, version: number, change: { decisions?: Decision[]; name?: string }) =>
    call<StoredPlan>('PUT', `/api/plans/${id}`, { version, ...change }),
  removePlan: (id: string) => call<void>('DELETE', `/api/plans/${id}`),
  plan: (id: string) => call<StoredPlan>('GET', `/api/plans/${id}`),
};
