import type { Files } from './files.ts';
import type { MarkupItem } from './types.ts';

/** A tag of a document that hasn't got its place yet. */
export type Draft = MarkupItem extends infer T ? (T extends { at: number } ? Omit<T, 'at'> : never) : never;

/**
 * Whether a link asks for something with low urgency, or may wait altogether. Such a link belongs after the head's scripts and
 * styles: what is found first leaves first, whatever its urgency, and a server that answers in order of arrival sends all of it
 * before them (docs/SIMULATOR.md, "A patient request that is found first").
 */
export function isPatient({
  rel,
  as,
  fetchpriority,
}: {
  rel: string;
  as?: string | null;
  fetchpriority?: string | null;
}): boolean {
  if (rel === 'prefetch') return true;
  if (rel !== 'preload' && rel !== 'modulepreload') return false;
  return fetchpriority === 'low' || (as === 'image' && fetchpriority !== 'high');
}

/** The link that brings a style sheet; none for files of other types. */
export function styleLink(files: Files, resource: number): Draft[] {
  if (files.resources[resource].type !== 'style') return [];
  return [{ tag: 'link', rel: 'stylesheet', resource, chosen: false }];
}
