import { InputError } from '../errors.ts';
import { text } from '../text/fields.ts';

/** A name of 1 to 80 letters that came from outside, without space around it; throws InputError naming the field. */
export function checkName(value: unknown, at: string): string {
  const name = text(value, at).trim();
  if (name !== '' && name.length <= 80) return name;
  throw new InputError('Not a name', 'Give a name of 1 to 80 letters.', at);
}
