import { store } from '../../../server/context.ts';
import { handle } from '../../../server/handle.ts';
import { ProjectInput, readInput } from '../../../server/inputs.ts';
import { allProjects, importProject } from '../../../server/projects.ts';

export function GET(request: Request): Promise<Response> {
  return handle(request, () => Response.json(allProjects(store())));
}

export function POST(request: Request): Promise<Response> {
  return handle(request, async () => {
    const { fileName, text } = await readInput(request, ProjectInput);
    return Response.json({ id: importProject(store(), fileName, text) }, { status: 201 });
  });
}
