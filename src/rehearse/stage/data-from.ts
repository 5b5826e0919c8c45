/** Where the answers to an app’s calls for data come from; stand-ins of the described sizes where nothing is said. */
export type DataFrom = { folder: string } | { har: string } | { address: string };

/** What a person gave as such a place: the address of a server, a recording by its ending, or a folder. `whole`: the whole path of one. */
export function dataFrom(given: string, whole: (path: string) => string): DataFrom {
  if (/^https?:\/\//.test(given)) return { address: given };
  return given.endsWith('.har') ? { har: whole(given) } : { folder: whole(given) };
}
