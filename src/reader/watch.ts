/**
 * What a reading tells whoever watches over it: which file or step it has begun, so that it can be named if the reading goes
 * no further; and files that it leaves aside because an earlier try ended in them, with the reason. A reading has a
 * process of its own, so there is one of these.
 */
export interface Watch {
  begun(what: string, isFile: boolean): void;
  skip: ReadonlyMap<string, string>;
}

let watch: Watch = { begun: () => {}, skip: new Map() };

export function watchWith(by: Watch): void {
  watch = by;
}

/** A file of the app, by its path in the folder, is taken up. */
export function beginFile(path: string): void {
  watch.begun(path, true);
}

/** A step that is about all files is taken up. */
export function beginStep(words: string): void {
  watch.begun(words, false);
}

/** After so many files a step says how far it is: whoever watches takes one that says nothing for stuck. */
const SAID_EACH = 500;

/** A step that is about all files goes through them: says how far it is. `at`: how many it is done with. */
export function goOn(words: string, at: number): void {
  if (at % SAID_EACH === 0) watch.begun(at === 0 ? words : `${words}: ${at} done`, false);
}

/** Why a file is left aside; undefined for one that is read. */
export function leftAside(path: string): string | undefined {
  return watch.skip.get(path);
}
