import type { Files } from './files.ts';
import type { MarkupItem } from './types.ts';

/** A tag of a document that hasn't got its place yet. */
export type Draft = MarkupItem extends infer T ? (T extends { at: number } ? Omit<T, 'at'> : never) : never;

/** The link that brings a style sheet; none for files of other types. */
export function styleLink(files: Files, resource: number): Draft[] {
  if (files.resources[resource].type !== 'style') return [];
  return [{ tag: 'link', rel: 'stylesheet', resource, chosen: false }];
}
