/**
 * What is wrong with something a person gave us: a title, what to do about it, and where it is.
 * `at` names a file with its line, or the path of a field (`snapshot.modules[3].path`).
 */
export class InputError extends Error {
  constructor(
    readonly title: string,
    readonly detail: string,
    readonly at?: string,
  ) {
    super(`${title}${at ? ` (${at})` : ''}: ${detail}`);
    this.name = 'InputError';
  }

  toJSON(): { title: string; detail: string; at?: string } {
    return this.at === undefined
      ? { title: this.title, detail: this.detail }
      : { title: this.title, detail: this.detail, at: this.at };
  }
}
