/**
 * What an earlier visit has left. `empty`: a first visit. `returning`: everything is there, what may be kept is fresh.
 * `stale`: everything is there, but all of it has to be asked about. `deployed`: the app's own code has changed since, so
 * that files which hold any of it have new addresses; what holds only packages is kept. `rebuilt`: packages have changed as well, so that
 * every file of the build is new; images and the like are kept.
 */
export const CACHES = {
  empty: { name: 'Empty', note: 'first visit' },
  returning: { name: 'Returning', note: 'nothing changed since' },
  stale: { name: 'Revalidating', note: 'everything is asked about' },
  deployed: { name: 'After a deploy', note: 'own code changed, packages kept' },
  rebuilt: { name: 'After a rebuild', note: 'every file of the build is new' },
} as const;

export type CacheState = keyof typeof CACHES;

/** All states, in the order in which they are listed. */
export const CACHE_STATES = Object.keys(CACHES) as CacheState[];
