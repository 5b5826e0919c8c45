import { startReadingBuild } from '../../../../../server/builds.ts';
import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { BuildInput, readInput } from '../../../../../server/inputs.ts';

/** Starts reading the folder of a production build, to lay it beside what a plan of the project promised. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    const input = await readInput(request, BuildInput);
    return Response.json(startReadingBuild(store, (await params).id, input), { status: 202 });
  });
}
