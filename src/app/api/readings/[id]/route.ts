import { handle } from '../../../../server/handle.ts';
import { readingState, stopReading } from '../../../../server/reading-jobs.ts';

type Context = { params: Promise<{ id: string }> };

export function GET(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => Response.json(readingState((await params).id)));
}

export function DELETE(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => Response.json(await stopReading((await params).id)));
}
