import { store } from '../../../../server/context.ts';
import { handle } from '../../../../server/handle.ts';
import { projectView } from '../../../../server/projects.ts';

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => Response.json(projectView(store(), (await params).id)));
}
