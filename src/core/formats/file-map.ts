import { InputError } from '../errors.ts';
import type { FileMap } from '../handoff/addresses.ts';
import { object, text } from '../text/fields.ts';
import { parseJson } from '../text/json.ts';

/**
 * Reads a map from modules to built files: JSON `{ "src/a.tsx": "assets/a-1f3c.js" }`, paths relative to the folder that
 * was read and to the root of the output. Throws InputError that names the entry that isn't a path.
 */
export function readFileMap(json: string, name: string): FileMap {
  const entries = Object.entries(object(parseJson(json, name), name));
  if (entries.length === 0)
    throw new InputError('An empty map', 'Write it as { "src/a.tsx": "assets/a-1f3c.js" }.', name);
  return Object.fromEntries(
    entries.map(([module, file]) => [module, text(file, `${name}[${JSON.stringify(module)}]`)]),
  );
}
