export type Matcher = (address: string) => string | null;

/** Turns a pattern with `:name` segments into a matcher that gives what is left of the address. */
export function compile(pattern: string): Matcher {
  const source = pattern.replace(/^\/|\/$/g, '').replace(/:[a-z]+/gi, '[^/]+');
  if (source === '') return (address) => address;
  const expression = new RegExp(`^${source}(?=/|$)`);
  return (address) => {
    const found = expression.exec(address);
    return found ? address.slice(found[0].length) : null;
  };
}
