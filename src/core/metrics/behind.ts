import type { Cause, RequestRecord, Timeline } from '../sim/types.ts';

/** The requests that count as sent until an instant, such as interactive (ms; not a number: until the end), the document among them. */
export function requestsUntil({ requests }: Timeline, at: number): RequestRecord[] {
  const until = Number.isFinite(at) ? at : Number.POSITIVE_INFINITY;
  return requests.filter((r) => r.discovered <= until && r.sent <= until);
}

/** Requests of a landing that bring what it doesn't use, the largest first. */
export function unusedRequests({ requests }: Timeline): RequestRecord[] {
  return requests.filter((r) => r.role === 'wasted' || r.role === 'in case').sort((a, b) => b.bytes - a.bytes);
}

/** Index of the request whose progress, or whose file, led to something; −1 for none. */
export function sourceRequest({ tasks }: Pick<Timeline, 'tasks'>, cause: Cause): number {
  let by = cause;
  while (by.request < 0 && by.task >= 0) {
    const { request, cause: earlier } = tasks[by.task];
    if (request >= 0) return request;
    by = earlier;
  }
  return by.request;
}

/** The longest chain of discoveries among the requests sent until an instant, the document first: each was asked for by the one before. */
export function longestHops(timeline: Timeline, at: number): RequestRecord[] {
  const sent = requestsUntil(timeline, at);
  const most = Math.max(...sent.map((r) => r.hop));
  const chain: RequestRecord[] = [];
  for (let r = sent.findLast(({ hop }) => hop === most); r; ) {
    chain.push(r);
    const source: RequestRecord | undefined = timeline.requests[sourceRequest(timeline, r.cause)];
    r = source && source.hop < r.hop ? source : undefined;
  }
  return chain.reverse();
}
