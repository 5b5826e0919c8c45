const collator = new Intl.Collator('en');

export function byName(names: string[]): string[] {
  return [...names].sort(collator.compare);
}
