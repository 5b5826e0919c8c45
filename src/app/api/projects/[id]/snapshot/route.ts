import zlib from 'node:zlib';
import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { packedSnapshot } from '../../../../../server/projects.ts';

const PACKED = 'application/gzip';

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    const { id, body } = packedSnapshot(store(), (await params).id);
    // As it is stored for who asks for that: packing it anew for each page would hold up the others.
    const takesPacked = request.headers.get('accept')?.includes(PACKED) ?? false;
    return new Response(new Uint8Array(takesPacked ? body : zlib.gunzipSync(body)), {
      headers: {
        // Which one it is: between being told of one and asking, there may be a newer one.
        'x-snapshot': id,
        ...{ 'content-type': takesPacked ? PACKED : 'application/json', 'cache-control': 'no-cache', vary: 'accept' },
      },
    });
  });
}
