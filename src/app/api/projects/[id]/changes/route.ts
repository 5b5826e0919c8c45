import { store } from '../../../../../server/context.ts';
import { changeFollows, follow } from '../../../../../server/following.ts';
import { handle } from '../../../../../server/handle.ts';
import { FollowInput, readInput } from '../../../../../server/inputs.ts';

type Context = { params: Promise<{ id: string }> };

/** A line now and then keeps the connection, and shows whether it still stands. In ms. */
const BEAT_MS = 15_000;

/** What happens to a project’s folder, as server-sent events (HTML, server-sent events). */
export function GET(request: Request, { params }: Context): Promise<Response> {
  return handle(request, async () => {
    const { id } = await params;
    const encoder = new TextEncoder();
    let end = () => {};
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        const send = (text: string) => {
          try {
            controller.enqueue(encoder.encode(text));
          } catch {
            // The page has gone without a word.
            end();
          }
        };
        send(': open\n\n');
        const leave = follow(store, id, (event) => send(`data: ${JSON.stringify(event)}\n\n`));
        const beat = setInterval(() => send(': beat\n\n'), BEAT_MS);
        end = () => {
          clearInterval(beat);
          leave();
        };
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
