import { handle } from '../../../server/handle.ts';
import { RescueInput, readInput } from '../../../server/inputs.ts';
import { seedAfresh } from '../../../server/seed-afresh.ts';
import { rescue } from '../../../server/store-trouble.ts';

/** Does what was chosen when the database couldn't be used as it was. */
export function POST(request: Request): Promise<Response> {
  return handle(request, async () => {
    const { do: what, copy } = await readInput(request, RescueInput);
    const done = rescue(what === 'copy' ? { do: what, copy: copy ?? '' } : { do: what });
    await seedAfresh();
    return Response.json(done);
  });
}
