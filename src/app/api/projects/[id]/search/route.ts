import { store } from '../../../../../server/context.ts';
import { handle } from '../../../../../server/handle.ts';
import { takeTurn } from '../../../../../server/limiter.ts';
import { searchTexts } from '../../../../../server/search.ts';

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return handle(request, async () => {
    takeTurn('search');
    const phrase = new URL(request.url).searchParams.get('q') ?? '';
    return Response.json(searchTexts(store(), (await params).id, phrase));
  });
}
