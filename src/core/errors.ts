/** What can be read in place of a folder in which nothing was found that starts an app; paths from that folder. */
export interface ReadingOffers {
  /** Folders that hold an app. */
  apps: string[];
  /** Files that may start the app, the likeliest first. */
  starts: string[];
}

/**
 * What is wrong with something a person gave us: a title, what to do about it, and where it is.
 * `at` names a file with its line, or the path of a field (`snapshot.modules[3].path`).
 */
export class InputError extends Error {
  constructor(
    readonly title: string,
    readonly detail: string,
    readonly at?: string,
    readonly offers?: ReadingOffers,
  ) {
    super(`${title}${at ? ` (${at})` : ''}: ${detail}`);
    this.name = 'InputError';
  }

  toJSON(): { title: string; detail: string; at?: string; offers?: ReadingOffers } {
    const { title, detail, at, offers } = this;
    return { title, detail, ...(at === undefined ? {} : { at }), ...(offers === undefined ? {} : { offers }) };
  }
}
