import type { RawLanding } from '../../core/rehearsals/raw.ts';

/** What the recorder uses of a page. */
declare const self: {
  __rehearsed?: Kept;
  __parts?: Pick<RawLanding, 'times' | 'calls'>;
  requestAnimationFrame(then: () => void): void;
};
declare const document: {
  addEventListener(type: Acting, heard: (event: ActEvent) => void, first: true): void;
};
interface ActEvent {
  type: string;
  timeStamp: number;
  isTrusted: boolean;
}
declare const location: { href: string };
interface Entry {
  name: string;
  entryType: string;
  startTime: number;
  duration: number;
  requestStart: number;
  responseStart: number;
  responseEnd: number;
  transferSize: number;
  domContentLoadedEventStart: number;
  loadEventStart: number;
}
declare const PerformanceObserver: new (
  seen: (list: { getEntries(): Entry[] }) => void,
) => {
  observe(what: { type: string; buffered: boolean }): void;
};
declare const MutationObserver: new (
  changed: (records: { addedNodes: { length: number } }[]) => void,
) => { observe(root: object, what: { childList: boolean; subtree: boolean }): void };
declare const Element: { prototype: { attachShadow(this: object, options: object): object } };
declare const performance: {
  now(): number;
  getEntriesByType(type: string): Entry[];
  setResourceTimingBufferSize(size: number): void;
};

type Kept = Pick<RawLanding, 'firstContent' | 'largestContent' | 'longTasks' | 'changes' | 'firstAct' | 'acts'> & {
  /** The act that the next event of this kind begins. */
  awaited: AwaitedAct | null;
};
/** What begins acts. Pages scroll to what is clicked as well: that begins nothing. */
export type Acting = 'click' | 'scroll';
export type AwaitedAct = { act: number; by: Acting };

/** Runs in the page before all else: keeps paints, long tasks and when elements were added. It is sent as text, so it uses nothing from around it. */
export function record(): void {
  const kept: Kept = {
    ...{ firstContent: null, largestContent: null, longTasks: [], changes: [], firstAct: null, acts: [] },
    awaited: null,
  };
  self.__rehearsed = kept;
  performance.setResourceTimingBufferSize(5000);
  const observe = (type: string, each: (entry: Entry) => void) => {
    new PerformanceObserver((list) => list.getEntries().forEach(each)).observe({ type, buffered: true });
  };
  observe('paint', (e) => {
    if (e.name === 'first-contentful-paint') kept.firstContent = e.startTime;
  });
  observe('largest-contentful-paint', (e) => {
    kept.largestContent = e.startTime;
  });
  observe('longtask', (e) => {
    kept.longTasks.push({ start: e.startTime, end: e.startTime + e.duration });
  });
  const acted = ({ type, timeStamp, isTrusted }: ActEvent) => {
    if (kept.awaited?.by !== type || !isTrusted) return;
    kept.firstAct ??= timeStamp;
    kept.acts[kept.awaited.act] = timeStamp;
    kept.awaited = null;
  };
  document.addEventListener('click', acted, true);
  document.addEventListener('scroll', acted, true);
  let open: Kept['changes'] = [];
  const changed = new MutationObserver((records) => {
    if (!records.some((r) => r.addedNodes.length > 0)) return;
    const change = { at: performance.now(), painted: 0 };
    kept.changes.push(change);
    open.push(change);
    if (open.length > 1) return;
    // What follows the frame’s own work comes when it has been painted.
    self.requestAnimationFrame(() => {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = () => {
        const painted = performance.now();
        for (const c of open) c.painted = painted;
        open = [];
        port1.close();
      };
      port2.postMessage(null);
    });
  });
  const below = { childList: true, subtree: true };
  changed.observe(document, below);
  // What elements keep to themselves is no part of the document's own tree.
  const { attachShadow } = Element.prototype;
  Element.prototype.attachShadow = function (this: object, options) {
    const root = attachShadow.call(this, options);
    changed.observe(root, below);
    return root;
  };
}

/** Gathers what was kept, once the page is quiet. Runs in the page. */
export function gather(): RawLanding {
  const entry = (e: Entry) => {
    const { name, startTime, requestStart, responseStart, responseEnd, transferSize } = e;
    return { address: name, startTime, requestStart, responseStart, responseEnd, transferSize };
  };
  const [navigation] = performance.getEntriesByType('navigation');
  const { times = {}, calls = {} } = self.__parts ?? {};
  return {
    ...self.__rehearsed!,
    document: {
      ...entry(navigation),
      address: location.href,
      contentLoaded: navigation.domContentLoadedEventStart,
      load: navigation.loadEventStart,
    },
    resources: performance.getEntriesByType('resource').map(entry),
    ...{ times, calls },
  };
}
