/**
 * What an earlier visit has left. `empty`: a first visit. `returning`: everything is there, what may be kept is fresh. `frequent`: the same
 * on a third visit or later, when the browser has kept what it compiled as well (fact 66). `stale`: everything is there, but all of it has to be
 * asked about. `deployed`: the app's own code has changed since, so that files which hold any of it have new addresses; what holds
 * only packages is kept. `rebuilt`: packages have changed as well, so that every file of the build is new; images and the like are kept.
 */
export const CACHES = {
  empty: { name: 'Empty', note: 'first visit', code: 'text' },
  returning: { name: 'Returning', note: 'nothing changed since', code: 'text' },
  frequent: { name: 'Frequent', note: 'third visit, compiled code kept', code: 'compiled' },
  stale: { name: 'Revalidating', note: 'everything is asked about', code: 'text' },
  deployed: { name: 'After a deploy', note: 'own code changed, packages kept', code: 'text' },
  rebuilt: { name: 'After a rebuild', note: 'every file of the build is new', code: 'text' },
} as const;

export type CacheState = keyof typeof CACHES;

/** All states, in the order in which they are listed. */
export const CACHE_STATES = Object.keys(CACHES) as CacheState[];
