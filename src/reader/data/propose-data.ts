import { ASSUMED_ANSWER, type DataCall, type Part, type Route } from '../../core/snapshot/route-types.ts';
import { FreeNames } from '../../core/text/free-names.ts';
import { type ImageAt, routeImages } from '../app-images.ts';
import { isDrawnUnder } from '../parts/drawn-under.ts';
import {
  type DrawnApp,
  type DrawnPaths,
  type DrawnRoute,
  proposeParts,
  usedBy,
  whenShown,
} from '../parts/find-parts.ts';
import type { FoundCall } from './data-calls.ts';

/** What a route draws and asks for, as the code tells. */
export type ProposedContent = Pick<Route, 'parts' | 'data' | 'content' | 'pageAfter'>;

/**
 * Proposes the parts of a route, its images, and the calls for data that its modules make: those of what is drawn at first, those of a part
 * behind an action or a condition, which needs them, and those that an action makes which opens the only part of its module.
 */
export function proposeContent(route: DrawnRoute, app: DrawnApp, imageAt: ImageAt): ProposedContent {
  const { parts, drawn } = proposeParts(route, app);
  const calls = new RouteCalls(app.callsOf);
  for (const { path, name } of route.loaders ?? []) calls.take(path, app.callsOfLoader(path, name));
  for (const [path, names] of drawn) {
    const owners = app.moduleAt(path)?.owners ?? null;
    const meant = (c: FoundCall) => !c.onAct && isDrawnUnder(c, owners, names);
    calls.add(path, meant);
    if (path === route.page || route.layouts.includes(path)) calls.holdUp(path, meant);
  }
  const filled = parts.map((part): Part => {
    const isLater = part.place === 'action' || part.place === 'conditional';
    const own = isLater ? drawnBy(part.module, app, drawn) : [part.module];
    const needs = own.flatMap((path) => calls.add(path, (c) => !c.onAct));
    const opened = part.evidence && part.place === 'action' ? openedIn(parts, part.evidence.path) : [];
    if (opened.length === 1) needs.push(...calls.add(part.evidence!.path, (c) => c.onAct));
    return { ...part, needs: [...new Set([...part.needs, ...needs])] };
  });
  const waiting = filled.map(({ drawnAfter = [], ...part }): Part => {
    const after = calls.idsOf(drawnAfter).filter((id) => !part.needs.includes(id));
    return after.length > 0 ? { ...part, drawnAfter: after } : part;
  });
  const { pageAfter } = calls;
  return {
    data: calls.list,
    ...(pageAfter.length > 0 ? { pageAfter } : {}),
    ...routeImages(waiting, drawn, app.moduleAt, imageAt),
  };
}

/** The calls of a route under ids that a person knows them by: what several modules ask for counts where it is asked for first. */
class RouteCalls {
  readonly list: DataCall[] = [];
  private readonly ids = new Map<string, string>();
  private readonly names = new FreeNames();

  constructor(private readonly callsOf: (path: string) => readonly FoundCall[]) {}

  /** Ids of calls that the router waits for, or the page's own component. */
  readonly pageAfter: string[] = [];

  /** Has the page wait for the calls of a module that hold it up. */
  holdUp(module: string, isMeant: (call: FoundCall) => boolean): void {
    const holding = this.callsOf(module).filter((c) => c.holds && isMeant(c));
    for (const id of this.idsOf(holding.map((c) => c.address)))
      if (!this.pageAfter.includes(id)) this.pageAfter.push(id);
  }

  /** Ids of the calls that are there, by their addresses. */
  idsOf(addresses: readonly string[]): string[] {
    return addresses.flatMap((a) => this.ids.get(a) ?? []);
  }

  /** Adds calls of a module, and gives their ids. */
  add(module: string, isMeant: (call: FoundCall) => boolean): string[] {
    return this.take(module, this.callsOf(module).filter(isMeant));
  }

  /** Adds calls that a module makes, and gives their ids. */
  take(module: string, calls: readonly FoundCall[]): string[] {
    return calls.map(({ address, line, begins, ofRouter }) => {
      const known = this.ids.get(address);
      if (known !== undefined) return known;
      const wished = nameOf(address);
      const id = this.names.give(wished, (n) => `${wished} ${n}`);
      this.ids.set(address, id);
      const when = begins === 'drawn' ? {} : { begins };
      this.list.push({ id, address, ...ASSUMED_ANSWER, module, ...when, evidence: { path: module, line } });
      if (ofRouter) this.pageAfter.push(id);
      return id;
    });
  }
}

/** The last word of an address: `/api/tides/:id` is known as tides. */
function nameOf(address: string): string {
  const words = address.replace(/^https?:\/\/[^/]+/, '').split(/[/#]/);
  return words.findLast((w) => w !== '' && !w.startsWith(':') && w !== '.') ?? 'answer';
}

function openedIn(parts: readonly Part[], path: string): Part[] {
  return parts.filter((p) => p.place === 'action' && p.evidence?.path === path);
}

/** What a part brings with it: the modules that it draws at once, without what is there already. */
function drawnBy(module: string, app: DrawnApp, there: DrawnPaths): string[] {
  const found = new Set([module]);
  for (const path of found) {
    for (const use of app.moduleAt(path)?.uses ?? []) {
      const to = usedBy(path, use, app).target;
      const drawn = to !== undefined && whenShown(use, app.moduleAt(to)).when.kind === 'drawn';
      if (drawn && !there.has(to) && app.moduleAt(to)?.package === null) found.add(to);
    }
  }
  return [...found];
}
