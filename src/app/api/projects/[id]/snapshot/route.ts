import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { snapshotBody } from '../../../../../server/projects.ts';
import { readAgain } from '../../../../../server/reading.ts';

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    const body = snapshotBody(store(), (await params).id);
    return new Response(new Uint8Array(body), {
      headers: { 'content-type': 'application/json', 'cache-control': 'no-cache' },
    });
  });
}

/** Reads the project's folder again. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => Response.json(readAgain(store(), (await params).id), { status: 201 }));
}
