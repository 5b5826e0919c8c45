/** The first of several names, and how many more there are: `a, b, c and 4 more`. */
export function firstOf(names: readonly string[], most: number): string {
  const more = names.length - most;
  return `${names.slice(0, most).join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}
