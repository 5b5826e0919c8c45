import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { keepPlans } from '../../../../../server/kept-plans.ts';

/** Begins to keep the project’s plans, limits and corrections in a file beside its code. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => Response.json(keepPlans(store(), (await params).id)));
}
