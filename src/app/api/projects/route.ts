import { store } from '../../../server/context.ts';
import { handle } from '../../../server/handle.ts';
import { ProjectInput, readInput } from '../../../server/inputs.ts';
import { allProjects, importProject } from '../../../server/projects.ts';
import { readFolder } from '../../../server/reading.ts';

export function GET(request: Request): Promise<Response> {
  return handle(request, () => Response.json(allProjects(store())));
}

export function POST(request: Request): Promise<Response> {
  return handle(request, async () => {
    const { fileName = '', text = '', folder } = await readInput(request, ProjectInput);
    const id = folder === undefined ? importProject(store(), fileName, text) : readFolder(store(), folder);
    return Response.json({ id }, { status: 201 });
  });
}
