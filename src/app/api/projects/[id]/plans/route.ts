import { store } from '../../../../../server/context.ts';
import { decided } from '../../../../../server/following.ts';
import { handle } from '../../../../../server/handle.ts';
import { NewPlanInput, readInput } from '../../../../../server/inputs.ts';
import { createPlan } from '../../../../../server/plans.ts';

export function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    const input = await readInput(request, NewPlanInput);
    const { id } = await params;
    const made = createPlan(store(), id, input);
    decided(store, id);
    return Response.json(made, { status: 201 });
  });
}
