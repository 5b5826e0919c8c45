import { store } from '../../../../../server/context.ts';
import { endsWithServer } from '../../../../../server/ending.ts';
import { changeFollows, follow } from '../../../../../server/following.ts';
import { handle } from '../../../../../server/handle.ts';
import { FollowInput, readInput } from '../../../../../server/inputs.ts';

type Context = { params: Promise<{ id: string }> };

/** A line now and then keeps the connection, and shows whether it still stands. In ms. */
const BEAT_MS = 15_000;

/**
 * So long after the end of a stream a page asks again, in ms: longer than an idle connection is kept, or it would open another stream on the old one
 * while the server waits for that to end.
 */
const RETRY_MS = 8000;

/** What happens to a project’s folder, as server-sent events (HTML, server-sent events); 204, which ends their asking, where it isn’t followed. */
export function GET(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => {
    const { id } = await params;
    const encoder = new TextEncoder();
    const early: string[] = [];
    let send = (text: string) => {
      early.push(text);
    };
    const leave = follow(store, id, (event) => send(`data: ${JSON.stringify(event)}\n\n`));
    if (leave === null) return new Response(null, { status: 204 });
    let end = () => {};
    let forget = () => {};
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        const beat = setInterval(() => send(': beat\n\n'), BEAT_MS);
        end = () => {
          clearInterval(beat);
          leave();
          forget();
          try {
            controller.close();
          } catch {
            // It is closed already.
          }
        };
        send = (text) => {
          try {
            controller.enqueue(encoder.encode(text));
          } catch {
            // The page has gone without a word.
            end();
          }
        };
        for (const text of [`retry: ${RETRY_MS}\n\n`, ...early]) send(text);
        forget = endsWithServer(end);
      },
      cancel: () => end(),
    });
    request.signal.addEventListener('abort', () => end());
    return new Response(stream, {
      headers: {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store',
        // It must not wait until there is enough to compress.
        'content-encoding': 'none',
      },
    });
  });
}

/** Has the project kept in step with its folder, or not any more. */
export function PUT(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => {
    const { follows } = await readInput(request, FollowInput);
    changeFollows(store, (await params).id, follows);
    return Response.json({ follows });
  });
}
