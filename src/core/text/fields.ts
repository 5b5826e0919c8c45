import { InputError } from '../errors.ts';

/** Reading untrusted JSON: every complaint names the field by its path and says what is expected there. */

export type Fields = Record<string, unknown>;

/** Refuses a field: throws InputError that says what is expected there and what it is. */
export function fail(at: string, expected: string, value: unknown): never {
  throw new InputError('Unexpected content', `${at} must be ${expected}, not ${short(value)}.`, at);
}

/** An object with fields; throws InputError naming the field for anything else. */
export function object(value: unknown, at: string): Fields {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) fail(at, 'an object', value);
  return value as Fields;
}

/** A list; throws InputError naming the field for anything else. */
export function list(value: unknown, at: string): unknown[] {
  if (!Array.isArray(value)) fail(at, 'a list', value);
  return value;
}

/** Longer than anything that is a name, an address, a path or a sentence. */
export const LONGEST_TEXT = 100_000;

/** A text of at most 100,000 letters, unless another length is given. */
export function text(value: unknown, at: string, most = LONGEST_TEXT): string {
  if (typeof value !== 'string') fail(at, 'a text', value);
  if (value.length > most) fail(at, `a text of at most ${most} letters`, `${value.length} letters`);
  return value;
}

/** A finite number, not negative; with a largest value where given. */
export function amount(value: unknown, at: string, most = Number.MAX_SAFE_INTEGER): number {
  if (typeof value !== 'number' || !(value >= 0) || !(value <= most)) {
    fail(at, most < Number.MAX_SAFE_INTEGER ? `a number from 0 to ${most}` : 'a number of 0 or more', value);
  }
  return value;
}

/** More bytes than a page can have. */
export const MOST_BYTES = 2_000_000_000;
/** Longer than anybody waits: a day. */
export const MOST_MS = 86_400_000;

/** A size in bytes, of at most 2 GB. */
export function bytesOf(value: unknown, at: string): number {
  return amount(value, at, MOST_BYTES);
}

/** A time in ms, of at most a day. */
export function millisOf(value: unknown, at: string): number {
  return amount(value, at, MOST_MS);
}

/** True or false; throws InputError naming the field for anything else. */
export function flag(value: unknown, at: string): boolean {
  if (typeof value !== 'boolean') fail(at, 'true or false', value);
  return value;
}

/** One of several texts; throws InputError naming the field and the choices for anything else. */
export function oneOf<T extends string>(value: unknown, choices: readonly T[], at: string): T {
  if (typeof value !== 'string' || !choices.includes(value as T)) fail(at, `one of ${choices.join(', ')}`, value);
  return value as T;
}

function short(value: unknown): string {
  if (value === undefined) return 'missing';
  const said = JSON.stringify(value) ?? String(value);
  return said.length > 60 ? `${said.slice(0, 57)}…` : said;
}
