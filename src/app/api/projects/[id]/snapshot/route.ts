import zlib from 'node:zlib';
import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { packedSnapshot } from '../../../../../server/projects.ts';

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    const packed = packedSnapshot(store(), (await params).id);
    const takesPacked = /\bgzip\b/.test(request.headers.get('accept-encoding') ?? '');
    return new Response(new Uint8Array(takesPacked ? packed : zlib.gunzipSync(packed)), {
      headers: {
        ...(takesPacked ? { 'content-encoding': 'gzip' } : {}),
        ...{ 'content-type': 'application/json', 'cache-control': 'no-cache', vary: 'accept-encoding' },
      },
    });
  });
}
