import type { Workbench } from './types.ts';

/** Something that happened without the person doing it. */
export interface Notice {
  words: string;
  /** It stays until the person closes it, however long the page takes; false where what is shown says it as well. */
  stays: boolean;
}

/** What tells something besides what is not told yet. */
export function telling(
  state: Pick<Workbench, 'notices'>,
  words: string,
  { stays = true }: Partial<Notice> = {},
): Pick<Workbench, 'notices'> {
  return { notices: [...state.notices, { words, stays }] };
}
