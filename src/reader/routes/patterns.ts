/**
 * The address pattern of a route below another one. `:id?`, `:id+` and `:id(\d+)` are variables (path patterns of the client routers),
 * `*name` takes all that follows. A path that begins with that of the one above is whole already.
 */
export function patternOf(above: string, path: string, hasChildren: boolean): string {
  const own = path
    .split('/')
    .filter((piece) => piece !== '')
    .map(segmentOf)
    .filter((piece, at, all) => !(hasChildren && at === all.length - 1 && piece === '*'));
  const outer = above.split('/').filter((piece) => piece !== '');
  const isWhole = path.startsWith('/') && outer.every((piece, at) => own[at] === piece);
  return `/${[...(isWhole ? [] : outer), ...own].join('/')}`;
}

function segmentOf(piece: string): string {
  if (piece === '**') return '*';
  const open = piece.indexOf('(');
  const takesAll = open > 0 && /^\(\.[*+]\)/.test(piece.slice(open));
  const name = (open < 0 ? piece : piece.slice(0, open)).replace(/[?+*]$/, '').replace(/[\s#?]/g, '');
  if (piece.startsWith('*')) return name === '' ? '*' : name;
  return takesAll ? name.replace(/^:/, '*') : name;
}
