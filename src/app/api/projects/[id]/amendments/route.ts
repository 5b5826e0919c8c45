import { store } from '../../../../../server/context.ts';
import { decided, followAnew } from '../../../../../server/following.ts';
import { handle } from '../../../../../server/handle.ts';
import { AmendmentsInput, readInput } from '../../../../../server/inputs.ts';
import { changeAmendments } from '../../../../../server/projects.ts';

/** Changes what a person corrected on what was read. */
export function PUT(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    const { id } = await params;
    const changed = changeAmendments(store(), id, await readInput(request, AmendmentsInput));
    followAnew(store, id);
    decided(store, id);
    return Response.json(changed);
  });
}
