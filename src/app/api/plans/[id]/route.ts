import { store } from '../../../../server/context.ts';
import { decided } from '../../../../server/following.ts';
import { handle } from '../../../../server/handle.ts';
import { PlanChangeInput, readInput } from '../../../../server/inputs.ts';
import { changePlan, planOf, removePlan } from '../../../../server/plans.ts';

type Context = { params: Promise<{ id: string }> };

export function GET(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => Response.json(planOf(store(), (await params).id)));
}

export function PUT(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => {
    const input = await readInput(request, PlanChangeInput);
    const changed = changePlan(store(), (await params).id, input);
    decided(store, changed.projectId);
    return Response.json(changed);
  });
}

export function DELETE(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => {
    const { id } = await params;
    const { projectId } = planOf(store(), id);
    removePlan(store(), id);
    decided(store, projectId);
    return new Response(null, { status: 204 });
  });
}
