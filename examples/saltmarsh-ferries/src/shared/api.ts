import type { Sailing, Trip } from './types';

async function call<T>(path: string): Promise<T> {
  const answer = await fetch(`/api${path}`);
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  return (await answer.json()) as T;
}
export const api = {
  next: () => call<Sailing[]>('/next'),
  sailings: (day: string) => call<Sailing[]>(`/sailings?day=${day}`),
  sailing: (id: string) => call<Sailing>(`/sailings/${id}`),
  trips: () => call<Trip[]>('/trips'),
  manifest: (id: string) => call<string[]>(`/crew/manifest/${id}`),
};
