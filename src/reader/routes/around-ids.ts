/** The segments of an id: `/_shell/tides_/$id` is drawn within what `/_shell` draws, under `/tides/:id`. */
const segmentsOf = (id: string) => id.split('/').filter((s) => s !== '');

/** What an id says of the address: what only groups or stands around is left out, and a name that only leaves what is around it loses its mark. */
export function pathOfId(id: string): string {
  const pieces = segmentsOf(id).flatMap((segment) => {
    if (/^_/.test(segment) || /^\(.*\)$/.test(segment)) return [];
    const plain = segment.replace(/_$/, '').replace(/^\{-?(.*)\}$/, '$1');
    return [plain === '$' ? '*' : plain.replace(/^\$/, ':')];
  });
  return `/${pieces.join('/')}`;
}

/** The id of the nearest route around another one, among those that there are; null where that is the root. */
export function idAround(id: string, ids: ReadonlySet<string>): string | null {
  const segments = segmentsOf(id);
  // The index of a route is known by its id with a slash at the end.
  if (id.endsWith('/') && segments.length > 0 && ids.has(`/${segments.join('/')}`)) return `/${segments.join('/')}`;
  for (let length = segments.length - 1; length > 0; length--) {
    const around = `/${segments.slice(0, length).join('/')}`;
    if (ids.has(around)) return around;
  }
  return null;
}
