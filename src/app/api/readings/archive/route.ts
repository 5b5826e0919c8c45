import { store } from '../../../../server/context.ts';
import { handle } from '../../../../server/handle.ts';
import { ArchiveInput, checkInput } from '../../../../server/inputs.ts';
import { howToRead } from '../../../../server/reading.ts';
import { startReadingArchive } from '../../../../server/reading-jobs.ts';
import { receiveArchive } from '../../../../server/uploads.ts';

/** Starts reading an archive, which is the body, into a new project. */
export function POST(request: Request): Promise<Response> {
  return handle(request, async () => {
    const asked = Object.fromEntries(new URL(request.url).searchParams);
    const { name, as, base, starts } = checkInput(asked, ArchiveInput);
    // Around an archive there is nothing that belongs to it.
    const wanted = howToRead({ as, base, starts });
    const archive = await receiveArchive(request, name);
    return Response.json(startReadingArchive(store, archive, wanted), { status: 202 });
  });
}
