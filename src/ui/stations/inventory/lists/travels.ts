/** Where something travels, in words. */
export function travels(routes: number, all: number): string {
  return routes === 0 ? 'no start' : routes === all ? 'every start' : `${routes} of ${all} starts`;
}
