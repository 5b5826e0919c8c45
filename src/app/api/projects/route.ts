import { store } from '../../../server/context.ts';
import { handle } from '../../../server/handle.ts';
import { importBody } from '../../../server/imports.ts';
import { allProjects } from '../../../server/projects.ts';

export function GET(request: Request): Promise<Response> {
  return handle(request, () => Response.json(allProjects(store())));
}

export function POST(request: Request): Promise<Response> {
  return handle(request, async () => Response.json({ id: await importBody(request) }, { status: 201 }));
}
