import { InputError } from '../errors.ts';

/** Refuses what is there twice: throws what is made of the place and name of the second one. */
export function eachOnce(names: readonly string[], complaint: (at: number, name: string) => InputError): void {
  const seen = new Set<string>();
  names.forEach((name, i) => {
    if (seen.has(name)) throw complaint(i, name);
    seen.add(name);
  });
}

/** Refuses a number beyond those of a list: throws InputError naming the field, of what it is a number and how many there are. */
export function withinList(n: number, count: number, what: string, at: string, title = 'A number of nothing'): void {
  if (n < count) return;
  throw new InputError(title, `${at} is ${n}, but there are ${count} ${what} (numbered from 0).`, at);
}
