import type { LoadProgram, MarkupItem, Resource, ScreenPart } from '../core/load/types.ts';
import { type Conditions, DEVICES, LINKS } from '../core/sim/conditions.ts';
import type { Cause, RequestRecord } from '../core/sim/types.ts';

/** A link and a device with round numbers, so that times can be worked out by hand. */
export const ROUND: Conditions = {
  link: { ...LINKS[0], rttMs: 100, downKbps: 8000, upKbps: 8000, dnsMs: 0 },
  device: { ...DEVICES[3], cpuFactor: 1, browserFactor: 1 },
  cache: 'empty',
};

/** A script file of 1000 bytes that costs nothing. */
export function file(address: string, more: Partial<Resource> = {}): Resource {
  const nothing = { serverMs: 0, cpuMs: 0, estimatedBytes: 0, imports: [], follow: [] };
  return {
    address,
    name: address,
    origin: '',
    type: 'script',
    bytes: 1000,
    cache: 'immutable',
    purpose: 'start',
    ...nothing,
    ...more,
  };
}

/** A page of these files, each in a group of its own. */
export function page(markup: MarkupItem[], resources: Resource[], more: Partial<LoadProgram> = {}): LoadProgram {
  const groups: LoadProgram['groups'] = resources.map((r, i) => ({
    name: r.name,
    resources: [i],
    after: [],
    loader: 'listed',
  }));
  const document: LoadProgram['document'] = {
    address: '/',
    bytes: 5000,
    serverMs: 50,
    cache: 'no-store',
    earlyHints: [],
    linkHeader: [],
    flush: [],
    markup,
  };
  return { document, resources, groups, parts: [], steps: [], ...more };
}

/** A part of the first screen that script draws at once. */
export function screenPart(id: string, more: Partial<ScreenPart> = {}): ScreenPart {
  const nothing = { needs: [], after: [], fill: [], renderMs: 5 };
  return {
    id,
    name: id,
    place: 'first screen',
    drawnBy: 'script',
    interactive: true,
    onItsOwn: true,
    ...nothing,
    ...more,
  };
}

/** A cause that leads nowhere. */
export function cause(more: Partial<Cause> = {}): Cause {
  return { kind: 'task', what: 'test', at: 0, request: -1, task: -1, ...more };
}

/** A request that was sent and answered, without anything in its way unless said. */
export function requestRecord(sent: number, end: number, more: Partial<RequestRecord> = {}): RequestRecord {
  const times = {
    discovered: sent,
    queued: sent,
    released: sent,
    sent,
    reached: sent,
    served: sent,
    firstByte: sent,
    end,
    evaluated: end,
  };
  const file = {
    resource: 0,
    address: '/a.js',
    name: 'a',
    origin: '',
    type: 'script',
    role: 'needed',
    bytes: 1000,
  } as const;
  const way = {
    hop: 1,
    cause: cause(),
    priority: 1,
    connection: 0,
    hint: false,
    pieces: [{ from: sent, to: end, bytes: 1000 }],
  } as const;
  return { ...file, ...way, ...times, pieces: [...way.pieces], ...more };
}
