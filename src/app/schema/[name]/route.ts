import fs from 'node:fs';
import path from 'node:path';
import { home } from '../../../server/context.ts';
import { handle } from '../../../server/handle.ts';
import { Problem } from '../../../server/problem.ts';

const SCHEMAS = ['project.schema.json', 'plan.schema.json'];

/** The published schemas of the files that people bring and take. */
export function GET(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  return handle(request, async () => {
    const { name } = await params;
    if (!SCHEMAS.includes(name))
      throw new Problem('no-such-schema', 'No such schema', `There are ${SCHEMAS.join(' and ')}.`);
    const text = fs.readFileSync(path.join(home(), 'docs', 'schema', name), 'utf8');
    return new Response(text, { headers: { 'content-type': 'application/schema+json' } });
  });
}
