import { committedApp } from '../../../../../server/commits.ts';
import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';

/** The app as the last commit of its repository has it. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => Response.json(await committedApp(store(), (await params).id)));
}
