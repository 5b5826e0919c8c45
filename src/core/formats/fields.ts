import { InputError } from '../errors.ts';

/** Reading untrusted JSON: every complaint names the field by its path and says what is expected there. */

export type Fields = Record<string, unknown>;

export function fail(at: string, expected: string, value: unknown): never {
  throw new InputError('Unexpected content', `${at} must be ${expected}, not ${short(value)}.`, at);
}

export function object(value: unknown, at: string): Fields {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) fail(at, 'an object', value);
  return value as Fields;
}

export function list(value: unknown, at: string): unknown[] {
  if (!Array.isArray(value)) fail(at, 'a list', value);
  return value;
}

/** A list whose items are checked one by one. */
export function each<T>(value: unknown, at: string, check: (item: unknown, at: string) => T): T[] {
  return list(value, at).map((item, i) => check(item, `${at}[${i}]`));
}

export function text(value: unknown, at: string): string {
  if (typeof value !== 'string') fail(at, 'a text', value);
  return value;
}

/** A finite number, not negative; with a largest value where given. */
export function amount(value: unknown, at: string, most = Number.MAX_SAFE_INTEGER): number {
  if (typeof value !== 'number' || !(value >= 0) || !(value <= most)) {
    fail(at, most < Number.MAX_SAFE_INTEGER ? `a number from 0 to ${most}` : 'a number of 0 or more', value);
  }
  return value;
}

export function flag(value: unknown, at: string): boolean {
  if (typeof value !== 'boolean') fail(at, 'true or false', value);
  return value;
}

export function oneOf<T extends string>(value: unknown, choices: readonly T[], at: string): T {
  if (typeof value !== 'string' || !choices.includes(value as T)) fail(at, `one of ${choices.join(', ')}`, value);
  return value as T;
}

function short(value: unknown): string {
  if (value === undefined) return 'missing';
  const said = JSON.stringify(value) ?? String(value);
  return said.length > 60 ? `${said.slice(0, 57)}…` : said;
}
