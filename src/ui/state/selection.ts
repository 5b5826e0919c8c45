import type { Selection } from './workbench/types.ts';

/** The chunk that is chosen, by itself or as what a chosen request brings; null otherwise. */
export function chosenChunk(selection: Selection): string | null {
  if (selection?.kind === 'chunk') return selection.id;
  return selection?.kind === 'request' ? selection.chunk : null;
}

/** Whether something that brings a chunk for certain split points belongs to what is chosen, wherever it was chosen. */
export function isMarked(
  selection: Selection,
  brings: { chunk: string; splitPoints: readonly string[] } | null,
): boolean {
  if (brings === null || selection === null) return false;
  if (selection.kind === 'split point') return brings.splitPoints.includes(selection.module);
  return chosenChunk(selection) === brings.chunk;
}
