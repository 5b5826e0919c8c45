import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { RehearsalInput, readInput } from '../../../../../server/inputs.ts';
import { rehearsalsOf, startRehearsal } from '../../../../../server/rehearsal-jobs.ts';

type Context = { params: Promise<{ id: string }> };

/** The rehearsals that are kept of a project. */
export function GET(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => Response.json(rehearsalsOf(store(), (await params).id)));
}

/** Starts one. */
export function POST(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => {
    const input = await readInput(request, RehearsalInput);
    return Response.json(startRehearsal(store, (await params).id, input), { status: 202 });
  });
}
