import { store } from '../../../server/context.ts';
import { handle } from '../../../server/handle.ts';
import { ReadingInput, readInput } from '../../../server/inputs.ts';
import { startReading, startReadingAgain } from '../../../server/reading-jobs.ts';

/** Starts reading a folder on this machine, into a new project or again into the one it came from. */
export function POST(request: Request): Promise<Response> {
  return handle(request, async () => {
    const { folder, projectId } = await readInput(request, ReadingInput);
    const state = projectId === undefined ? startReading(store(), folder ?? '') : startReadingAgain(store(), projectId);
    return Response.json(state, { status: 202 });
  });
}
