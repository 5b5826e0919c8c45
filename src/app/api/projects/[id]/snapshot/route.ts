import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { snapshotBody } from '../../../../../server/projects.ts';

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    const body = snapshotBody(store(), (await params).id);
    return new Response(new Uint8Array(body), {
      headers: { 'content-type': 'application/json', 'cache-control': 'no-cache' },
    });
  });
}
