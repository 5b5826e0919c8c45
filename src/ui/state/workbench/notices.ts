/** Something that happened without the person doing it. */
export interface Notice {
  words: string;
  /** It stays until the person closes it, however long the page takes; false where what is shown says it as well. */
  stays: boolean;
}

/** What tells something besides what is not told yet. */
export function telling(
  state: { notices: readonly Notice[] },
  words: string,
  { stays = true }: Partial<Notice> = {},
): { notices: readonly Notice[] } {
  return { notices: [...state.notices, { words, stays }] };
}
