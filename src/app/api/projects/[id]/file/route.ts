import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { takeTurn } from '../../../../../server/limiter.ts';
import { projectFile } from '../../../../../server/projects.ts';

/** A whole project as a file; without the texts of its modules unless they are asked for. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    takeTurn('file');
    const withTexts = new URL(request.url).searchParams.get('texts') === 'yes';
    return new Response(projectFile(store(), (await params).id, withTexts), {
      headers: { 'content-type': 'application/json' },
    });
  });
}
