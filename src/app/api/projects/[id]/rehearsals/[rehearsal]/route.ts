import { store } from '../../../../../../server/context.ts';
import { handle } from '../../../../../../server/handle.ts';
import { forgetRehearsal, keptRehearsal } from '../../../../../../server/rehearsal-jobs.ts';

type Context = { params: Promise<{ id: string; rehearsal: string }> };

/** All that was measured in a rehearsal that is kept. */
export function GET(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => {
    const { id, rehearsal } = await params;
    return Response.json(keptRehearsal(store(), id, rehearsal));
  });
}

/** Lets go of it. */
export function DELETE(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => {
    const { id, rehearsal } = await params;
    forgetRehearsal(store(), id, rehearsal);
    return new Response(null, { status: 204 });
  });
}
