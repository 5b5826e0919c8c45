import { SCHEMA_NAMES, schemaFile, schemaText } from '../../../core/formats/schemas.ts';
import { handle } from '../../../server/handle.ts';
import { Problem } from '../../../server/problem.ts';

/** The published schemas of the files that people bring and take. */
export function GET(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  return handle(request, async () => {
    const { name } = await params;
    const known = SCHEMA_NAMES.find((n) => schemaFile(n) === name);
    if (!known)
      throw new Problem('no-such-schema', 'No such schema', `There are ${SCHEMA_NAMES.map(schemaFile).join(', ')}.`);
    return new Response(schemaText(known), { headers: { 'content-type': 'application/schema+json' } });
  });
}
