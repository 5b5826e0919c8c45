import { store } from '../../../server/context.ts';
import { handle } from '../../../server/handle.ts';
import { ReadingInput, readInput } from '../../../server/inputs.ts';
import { howToRead } from '../../../server/reading.ts';
import { startReading, startReadingAgain } from '../../../server/reading-jobs.ts';

/** Starts reading a folder on this machine, into a new project or again into the one it came from. */
export function POST(request: Request): Promise<Response> {
  return handle(request, async () => {
    const { folder, projectId, ...how } = await readInput(request, ReadingInput);
    const state =
      projectId === undefined
        ? startReading(store, folder ?? '', howToRead(how))
        : startReadingAgain(store, projectId, howToRead(how).workspace);
    return Response.json(state, { status: 202 });
  });
}
