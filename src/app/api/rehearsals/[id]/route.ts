import { handle } from '../../../../server/handle.ts';
import { rehearsalState, stopRehearsal } from '../../../../server/rehearsal-jobs.ts';

type Context = { params: Promise<{ id: string }> };

/** How far a rehearsal is. */
export function GET(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => Response.json(rehearsalState((await params).id)));
}

/** Asks it to end with the runs that it has. */
export function DELETE(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => Response.json(stopRehearsal((await params).id)));
}
