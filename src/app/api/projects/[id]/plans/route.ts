import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { NewPlanInput, readInput } from '../../../../../server/inputs.ts';
import { createPlan } from '../../../../../server/plans.ts';

export function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    const input = await readInput(request, NewPlanInput);
    return Response.json(createPlan(store(), (await params).id, input), { status: 201 });
  });
}
