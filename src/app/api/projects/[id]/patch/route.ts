import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { PatchInput, readInput } from '../../../../../server/inputs.ts';
import { takeTurn } from '../../../../../server/limiter.ts';
import { patchFor } from '../../../../../server/patches.ts';

export function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    takeTurn('patch');
    const input = await readInput(request, PatchInput);
    return Response.json(patchFor(store(), (await params).id, input));
  });
}
