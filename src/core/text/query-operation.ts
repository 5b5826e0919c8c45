/**
 * What a request asks for by its text, where that is a query of GraphQL (GraphQL over HTTP): the name of the operation, as it is sent along, or else as
 * the query writes it. Null for any other text.
 */
export function operationOf(text: string | null | undefined): string | null {
  if (!text || !/"(query|operationName)"/.test(text)) return null;
  let sent: unknown;
  try {
    sent = JSON.parse(text);
  } catch {
    return null;
  }
  // Several in one request are told by the first.
  const [first] = Array.isArray(sent) ? sent : [sent];
  if (typeof first !== 'object' || first === null) return null;
  const { operationName, query } = first as Record<string, unknown>;
  if (typeof operationName === 'string' && /^\w+$/.test(operationName)) return operationName;
  return typeof query === 'string' ? (/^\s*(?:query|mutation|subscription)\s+(\w+)/.exec(query)?.[1] ?? null) : null;
}

/** An address with the name of the operation that was sent to it, as calls for data carry it; unchanged without one. */
export function withOperation(address: string, operation: string | null): string {
  return operation === null ? address : `${address.replace(/#.*$/s, '')}#${operation}`;
}

/** The operation that an address carries; null for most. */
export function carriedOperation(address: string): string | null {
  return /#(\w+)$/.exec(address)?.[1] ?? null;
}
