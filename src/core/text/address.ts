/** An address without what is asked of it (`?`) and the place in it (`#`). */
export function withoutQuery(address: string): string {
  const at = address.search(/[?#]/);
  return at < 0 ? address : address.slice(0, at);
}
