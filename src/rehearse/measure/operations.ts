import type { Page } from 'playwright-core';
import type { RawLanding } from '../../core/rehearsals/raw.ts';
import { operationOf, withOperation } from '../../core/text/query-operation.ts';

/** Queries of GraphQL that a page sends: the page itself tells only to which address they went. */
export class Operations {
  /** Names of the operations that went to an address, in their order. */
  private readonly sent = new Map<string, string[]>();

  constructor(page: Page) {
    page.on('request', (request) => {
      const operation = request.method() === 'GET' ? null : operationOf(request.postData());
      if (operation === null) return;
      const address = request.url();
      this.sent.set(address, [...(this.sent.get(address) ?? []), operation]);
    });
  }

  /** A landing with the names of its queries behind their addresses. */
  named(raw: RawLanding): RawLanding {
    if (this.sent.size === 0) return raw;
    const left = new Map([...this.sent].map(([address, names]) => [address, [...names]]));
    const inOrder = [...raw.resources].sort((a, b) => a.startTime - b.startTime);
    const names = new Map(inOrder.map((r) => [r, left.get(r.address)?.shift() ?? null]));
    return {
      ...raw,
      resources: raw.resources.map((r) => ({ ...r, address: withOperation(r.address, names.get(r) ?? null) })),
    };
  }
}
