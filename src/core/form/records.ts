import { type Fields, object, oneOf } from '../text/fields.ts';
import type { Definitions, Form, JsonSchema } from './form.ts';

/** A field that may be left out, and stays left out. */
interface Optional<T> {
  form: Form<T>;
  missing: 'left out';
  /** Null counts as left out. */
  orNull: boolean;
}

/** A field that may be left out; what is assumed then is checked as if it had been given. */
interface Assumed<T> {
  form: Form<T>;
  missing: 'assumed';
  value: unknown;
  orNull: boolean;
}

/** A field that may be left out. */
export function optional<T>(form: Form<T>): Optional<T> {
  return { form, missing: 'left out', orNull: false };
}

/** A field that may be left out or null, which is the same. */
export function optionalOrNull<T>(form: Form<T>): Optional<T> {
  return { form, missing: 'left out', orNull: true };
}

/** A field for which something is assumed where it is left out. */
export function assumed<T>(form: Form<T>, value: unknown): Assumed<T> {
  return { form, missing: 'assumed', value, orNull: false };
}

/** The same where null counts as left out. */
export function assumedOrNull<T>(form: Form<T>, value: unknown): Assumed<T> {
  return { form, missing: 'assumed', value, orNull: true };
}

/** A mark that is there or isn't: false is the same as left out. */
export const MARK: Optional<true> = {
  missing: 'left out',
  orNull: false,
  form: {
    check: (value, at) =>
      oneOf(String(value), ['true', 'false'] as const, at) === 'true' ? true : (undefined as never),
    schema: () => ({ type: 'boolean' }),
  },
};

type Field<T> = Form<T> | Optional<T> | Assumed<T>;
/** Fields by name. */
export type FieldMap = Record<string, Field<unknown>>;

type ValueOf<F> = F extends Form<infer T> ? T : F extends { form: Form<infer T> } ? T : never;
type Flat<T> = { [K in keyof T]: T[K] };
/** The object that fields describe. */
export type Described<F> = Flat<
  { [K in keyof F as F[K] extends Optional<unknown> ? never : K]: ValueOf<F[K]> } & {
    [K in keyof F as F[K] extends Optional<unknown> ? K : never]?: ValueOf<F[K]>;
  }
>;

/** An object with these fields; others are left aside. */
export function record<F extends FieldMap>(fields: F): Form<Described<F>> {
  const entries = Object.entries(fields);
  return {
    check: (value, at) => {
      const item = object(value, at);
      const out: Fields = {};
      for (const [name, field] of entries) put(out, name, field, item[name], inside(at, name));
      return out as Described<F>;
    },
    schema: (definitions) => {
      const required = entries.filter(([, field]) => !('missing' in field)).map(([name]) => name);
      return {
        type: 'object',
        properties: Object.fromEntries(entries.map(([name, field]) => [name, schemaOfField(field, definitions)])),
        ...(required.length > 0 ? { required } : {}),
      };
    },
  };
}

/** The path of a field; those of a whole file begin without a dot. */
function inside(at: string, name: string): string {
  return at === '' ? name : `${at}.${name}`;
}

function put(out: Fields, name: string, field: Field<unknown>, given: unknown, at: string): void {
  if (!('missing' in field)) out[name] = field.check(given, at);
  else if (given !== undefined && !(given === null && field.orNull)) {
    const value = field.form.check(given, at);
    if (value !== undefined) out[name] = value;
  } else if (field.missing === 'assumed') out[name] = field.form.check(field.value, at);
}

function schemaOfField(field: Field<unknown>, definitions: Definitions): JsonSchema {
  if (!('missing' in field)) return field.schema(definitions);
  const schema = field.form.schema(definitions);
  const whole = field.orNull ? { anyOf: [schema, { type: 'null' }] } : schema;
  return field.missing === 'assumed' && field.value !== null ? { ...whole, default: field.value } : whole;
}

/** An object with the same fields, all of which may be left out. */
export function partial<F extends Record<string, Form<unknown>>>(
  fields: F,
): Form<Described<{ [K in keyof F]: Optional<ValueOf<F[K]>> }>> {
  return record(Object.fromEntries(Object.entries(fields).map(([name, form]) => [name, optional(form)]))) as never;
}

/** An object with the fields of both. */
export function both<A extends object, B extends object>(a: Form<A>, b: Form<B>): Form<A & B> {
  return {
    check: (value, at) => ({ ...a.check(value, at), ...b.check(value, at) }),
    schema: (definitions) => ({ allOf: [a.schema(definitions), b.schema(definitions)] }),
  };
}

/** An object with one of several fields: the first one that is there is taken, and the last one asked for where none is. */
export function oneField<F extends Record<string, Form<unknown>>>(
  fields: F,
): Form<{ [K in keyof F]: { [P in K]: ValueOf<F[K]> } }[keyof F]> {
  const names = Object.keys(fields);
  return {
    check: (value, at) => {
      const item = object(value, at);
      const name = names.find((n) => item[n] !== undefined) ?? names[names.length - 1];
      return { [name]: fields[name].check(item[name], inside(at, name)) } as never;
    },
    schema: (definitions) => ({
      type: 'object',
      properties: Object.fromEntries(names.map((name) => [name, fields[name].schema(definitions)])),
      anyOf: names.map((name) => ({ required: [name] })),
    }),
  };
}

/** Objects of several kinds, told apart by one field; what else each kind has is described by its own form. */
export function variants<Tag extends string, V extends Record<string, Form<object>>>(
  tag: Tag,
  kinds: V,
): Form<Variants<Tag, V>> {
  const names = Object.keys(kinds);
  return {
    check: (value, at) => {
      const item = object(value, at);
      const kind = oneOf(item[tag], names, inside(at, tag));
      return { [tag]: kind, ...kinds[kind].check(item, at) } as Variants<Tag, V>;
    },
    schema: (definitions) => ({
      type: 'object',
      properties: { [tag]: { enum: names } },
      required: [tag],
      oneOf: names.map((name) => tagged(tag, name, kinds[name].schema(definitions))),
    }),
  };
}

/** The objects that variants describe. */
export type Variants<Tag extends string, V> = {
  [K in keyof V]: Flat<{ [T in Tag]: K } & (V[K] extends Form<infer T> ? T : never)>;
}[keyof V];

function tagged(tag: string, kind: string, schema: JsonSchema): JsonSchema {
  const own = { properties: { [tag]: { const: kind } } };
  if (!schema.properties) return { ...own, ...schema };
  return { ...schema, properties: { ...own.properties, ...(schema.properties as object) } };
}
