import { InputError } from '../errors.ts';
import { amount, fail, flag, LONGEST_TEXT, list, MOST_BYTES, MOST_MS, object, oneOf, text } from '../text/fields.ts';
import type { Form } from './form.ts';

/** A text of at most so many letters. */
export function textUpTo(most: number): Form<string> {
  return {
    check: (value, at) => text(value, at, most),
    schema: () => ({ type: 'string', ...(Number.isFinite(most) ? { maxLength: most } : {}) }),
  };
}

/** A text: longer than anything that is a name, an address, a path or a sentence it is not. */
export const TEXT = textUpTo(LONGEST_TEXT);

/** A finite number, not negative; with a largest value where given. */
export function amountUpTo(most: number): Form<number> {
  return {
    check: (value, at) => amount(value, at, most),
    schema: () => ({ type: 'number', minimum: 0, ...(most < Number.MAX_SAFE_INTEGER ? { maximum: most } : {}) }),
  };
}

/** A number that isn't negative. */
export const AMOUNT = amountUpTo(Number.MAX_SAFE_INTEGER);
/** A size in bytes. */
export const BYTES = amountUpTo(MOST_BYTES);
/** A time in ms. */
export const MILLIS = amountUpTo(MOST_MS);
/** A share, from 0 to 1. */
export const SHARE = amountUpTo(1);
/** A width or height in CSS pixels. */
export const PIXELS = amountUpTo(100_000);

/** A whole number that isn't negative: a count, or the place of something in a list. */
export const WHOLE: Form<number> = {
  check: (value, at) => {
    const n = amount(value, at);
    return Number.isInteger(n) ? n : fail(at, 'a whole number', value);
  },
  schema: () => ({ type: 'integer', minimum: 0 }),
};

/** True or false. */
export const FLAG: Form<boolean> = { check: flag, schema: () => ({ type: 'boolean' }) };

/** One of several texts. */
export function choice<const T extends string>(choices: readonly T[]): Form<T> {
  return { check: (value, at) => oneOf(value, choices, at), schema: () => ({ enum: [...choices] }) };
}

/** Always the same. */
export function constant<const T extends string | number>(only: T): Form<T> {
  return {
    check: (value, at) => (value === only ? only : fail(at, JSON.stringify(only), value)),
    schema: () => ({ const: only }),
  };
}

/** A value, or null. */
export function orNull<T>(form: Form<T>): Form<T | null> {
  return {
    check: (value, at) => (value === null ? null : form.check(value, at)),
    schema: (definitions) => ({ anyOf: [form.schema(definitions), { type: 'null' }] }),
  };
}

/** One certain text, or something of another form. */
export function textOr<const T extends string, U>(only: T, form: Form<U>): Form<T | U> {
  return {
    check: (value, at) => (value === only ? only : form.check(value, at)),
    schema: (definitions) => ({ anyOf: [{ const: only }, form.schema(definitions)] }),
  };
}

/** A list, each item of one form; where it may have only so many, they are counted before anything else. */
export function listOf<T>(form: Form<T>, limit?: { most: number; what: string }): Form<T[]> {
  return {
    check: (value, at) => {
      const items = list(value, at);
      if (limit && items.length > limit.most)
        throw new InputError(
          `Too many ${limit.what}`,
          `There may be up to ${limit.most}; ${at} has ${items.length}.`,
          at,
        );
      return items.map((item, i) => {
        try {
          return form.check(item, '');
        } catch {
          // Paths are only written for what is refused: in long lists they would take as long as all the rest.
          return form.check(item, `${at}[${i}]`);
        }
      });
    },
    schema: (definitions) => ({
      type: 'array',
      items: form.schema(definitions),
      ...(limit ? { maxItems: limit.most } : {}),
    }),
  };
}

/** Values of one form by names that may be any words. */
export function mapOf<T>(form: Form<T>): Form<Record<string, T>> {
  return {
    check: (value, at) => {
      // Without a prototype, something called `constructor` is there only if it was given.
      const map: Record<string, T> = Object.create(null);
      for (const [name, item] of Object.entries(object(value, at))) map[name] = form.check(item, `${at}["${name}"]`);
      return map;
    },
    schema: (definitions) => ({ type: 'object', additionalProperties: form.schema(definitions) }),
  };
}
