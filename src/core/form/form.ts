/** A JSON Schema (draft 2020-12). */
export type JsonSchema = { [keyword: string]: unknown };

/** Schemas that have a name of their own, by name. */
export type Definitions = Record<string, JsonSchema>;

/**
 * The one description of something that comes from outside: its type (`Of`), its check and its JSON Schema all follow from it.
 */
export interface Form<T> {
  /** Checks a value and gives it, with what may be left out filled in; throws InputError naming the field by its path. */
  check(value: unknown, at: string): T;
  /** Its JSON Schema; forms with a name are put into `definitions`, and referred to. */
  schema(definitions: Definitions): JsonSchema;
}

/** The type that a form describes. */
export type Of<F> = F extends Form<infer T> ? T : never;

/** A form with a name: its schema is a definition, to which everything that uses it refers. */
export function named<T>(name: string, form: Form<T>): Form<T> {
  return {
    check: form.check,
    schema: (definitions) => {
      // The place is taken first, so that definitions stand in the order in which they are met.
      if (!Object.hasOwn(definitions, name)) {
        definitions[name] = {};
        definitions[name] = form.schema(definitions);
      }
      return { $ref: `#/$defs/${name}` };
    },
  };
}

/**
 * A form of which more has to hold: `check` throws InputError where it doesn't. What of that a JSON Schema can say is given as `schema`.
 */
export function refined<T>(form: Form<T>, check: (value: T, at: string) => void, schema: JsonSchema = {}): Form<T> {
  return {
    check: (value, at) => {
      const checked = form.check(value, at);
      check(checked, at);
      return checked;
    },
    schema: (definitions) => ({ ...form.schema(definitions), ...schema }),
  };
}

/** A form whose value is made into another one once it is checked. */
export function converted<T, U>(form: Form<T>, convert: (value: T) => U): Form<U> {
  return { check: (value, at) => convert(form.check(value, at)), schema: form.schema };
}

/** The JSON Schema of a file, with the definitions that it uses. */
export function schemaOf(form: Form<unknown>, about: { $id: string; title: string; description: string }): JsonSchema {
  const definitions: Definitions = {};
  const schema = form.schema(definitions);
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    ...about,
    ...schema,
    ...(Object.keys(definitions).length > 0 ? { $defs: definitions } : {}),
  };
}
