import { InputError } from '../core/errors.ts';

/** Something that can't be done as asked, in the form of RFC 9457 (problem details). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(`${title}: ${detail}`);
  }
}

/** The answer for a failed use case. Unknown failures tell nothing of the inside. */
export function problemResponse(error: unknown): Response {
  const problem = problemOf(error);
  const body = {
    type: 'about:blank',
    status: problem.status,
    title: problem.title,
    detail: problem.detail,
    ...problem.more,
  };
  return new Response(JSON.stringify(body), {
    status: problem.status,
    headers: { 'content-type': 'application/problem+json' },
  });
}

/** Any failure as a problem; unknown ones tell nothing of the inside. */
export function problemOf(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof InputError)
    return new Problem(422, error.title, error.detail, error.at === undefined ? {} : { at: error.at });
  return new Problem(500, 'Something broke on the server', 'Nothing was changed. The log of the server tells more.');
}
