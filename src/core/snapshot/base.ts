import { InputError } from '../errors.ts';
import type { Form } from '../form/form.ts';

/**
 * Checks the base address of an app: the address under which its files are served. Gives it; throws InputError that
 * says how to write it. A wrong base makes every deferred load fail, so nothing is guessed or mended here.
 */
export function checkBase(value: unknown, at: string): string {
  if (typeof value !== 'string' || value === '')
    throw refusal('Write / when the files are served from the root.', value, at);
  if (/\s|[?#\\]/.test(value)) throw refusal('It may hold no spaces, ?, # or backslashes.', value, at);
  if (!value.startsWith('/') && !/^https?:\/\/[^/]+\//.test(value))
    throw refusal('It begins with / or is a whole address such as https://cdn.example/app/.', value, at);
  if (value.startsWith('//')) throw refusal('Write the protocol, as in https://cdn.example/app/.', value, at);
  if (!value.endsWith('/')) throw refusal(`It ends with a slash: ${value}/`, value, at);
  if (/\/\.{1,2}\//.test(value)) throw refusal('It may hold no . or .. segments.', value, at);
  return value;
}

/** The base address of an app. */
export const BASE: Form<string> = {
  check: checkBase,
  schema: () => ({ type: 'string', pattern: '^(?!.*/\\.{1,2}/)(/(?!/)|https?://[^/\\s?#\\\\]+/)([^\\s?#\\\\]*/)?$' }),
};

function refusal(what: string, value: unknown, at: string): InputError {
  return new InputError('Not a base address', `${JSON.stringify(value) ?? 'nothing'}: ${what}`, at);
}
