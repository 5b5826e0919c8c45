import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { RehearsalInput, readInput } from '../../../../../server/inputs.ts';
import { forgetRehearsal, rehearsalsOf, startRehearsal } from '../../../../../server/rehearsal-jobs.ts';

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

/** Lets go of the one that is named (`?rehearsal=ID`). */
export function DELETE(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => {
    forgetRehearsal(store(), (await params).id, new URL(request.url).searchParams.get('rehearsal') ?? '');
    return new Response(null, { status: 204 });
  });
}
