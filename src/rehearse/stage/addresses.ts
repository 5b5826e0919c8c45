/** An address on a route: what its pattern leaves open is filled in with something. */
export function addressOn(pattern: string): string {
  return pattern.replace(/:\w+[?*+]?|\*\w*|\[[^\]]*\]/g, '1');
}

/** Whether an address fits one whose open parts are written `:name`, `*`, `{name}` or `${…}`. */
export function addressMatches(pattern: string, address: string): boolean {
  const path = pattern.replace(/[?#].*$/, '');
  if (path === address) return true;
  const parts = path.split('/');
  const given = address.split('/');
  return (
    parts.every((part, at) => {
      if (/^\*/.test(part)) return at < given.length;
      return isOpen(part) ? Boolean(given[at]) : part === given[at];
    }) &&
    (parts.length === given.length || /^\*/.test(parts.at(-1)!))
  );
}

const isOpen = (part: string) => /^:|^\{.*\}$|\$\{/.test(part);
