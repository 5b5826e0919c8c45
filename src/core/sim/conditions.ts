import type { CacheState } from '../vocabulary/cache-states.ts';
/** Under what circumstances a load is predicted. Times in ms, rates in kilobits per second. */
export interface Conditions {
  link: Link;
  device: Device;
  cache: CacheState;
}

/** How a server sends answers that are ready. */
export interface Sending {
  /** In which order: as they became ready, by urgency (RFC 9218), or all in equal shares. */
  serverScheduling: 'fifo' | 'urgency' | 'shared';
  /** Size of the pieces in which it writes, of which nothing is seen before all of one is there; the usual one of its order unless said. */
  recordBytes?: number;
}

export interface Link extends Sending {
  id: string;
  name: string;
  /** `h2-h3`: HTTP/2 until the browser has learned that the origin speaks HTTP/3 too (Alt-Svc, RFC 7838). */
  protocol: 'h1' | 'h2' | 'h3' | 'h2-h3';
  /** TLS version; HTTP/3 always uses 1.3. */
  tls: 'none' | '1.2' | '1.3';
  rttMs: number;
  downKbps: number;
  upKbps: number;
  /** What a lookup of a name takes in all, where the name server is near. */
  dnsMs: number;
  /** Where the name server is at the far end of the link: what it takes for an answer. A lookup goes over the link then, and `dnsMs` says nothing. */
  resolverMs?: number;
  /** How it sends over HTTP/3, where that differs. */
  overHttp3?: Sending;
  /** Packets that wait at the bottleneck at most before more are dropped; without end unless said. */
  queuePackets?: number;
  /** Share of the packets to the browser that the link loses after it has carried them, in percent. */
  lossPercent?: number;
  /** Where the row of chances begins. Without one a simulation loses nothing: what is compared must not differ by chance. */
  lossSeed?: number;
}

export interface Device {
  id: string;
  name: string;
  /** How many times slower than the reference machine it runs script. */
  cpuFactor: number;
  /** The same for the browser's own work; the CPU factor unless the two were told apart. */
  browserFactor: number;
  viewport: { width: number; height: number };
  touch: boolean;
  dataSaver: boolean;
  /** What the browser costs by itself, where that is known of the device; the reference machine's otherwise. */
  costs?: BrowserCosts;
  /** How many times slower threads other than the page's are; the CPU factor unless the two were told apart. */
  backgroundFactor?: number;
  /** ms per byte of minified script at CPU factor 1, where somebody measured it; an assumption otherwise. */
  evaluationRate?: number;
  /** What each module of a file takes to begin, in ms at CPU factor 1, where files keep their modules apart; nothing in files of one scope. */
  moduleMs?: number;
  /** How many times as long as reckoned drawing takes; 1 unless said. */
  drawingFactor?: number;
}

/**
 * What the browser costs by itself, in ms at CPU factor 1. Measured on the machine of the recorded loads (see
 * docs/SIMULATOR.md), which is the reference; on other devices it scales with their factor.
 */
export const REFERENCE_COSTS = {
  /**
   * The browser begins to connect so long before the instant from which a page counts its time: in recorded loads the first round trip is
   * over 6 to 9 ms early, at any distance. No work of the page's thread, so that it doesn't scale.
   */
  headStart: 7,
  /** A link is followed from an open page → the request for its document leaves. */
  followLink: 18,
  /** What a document's first bytes cost besides where they take the place of an open page. */
  leavePage: 14,
  /** Document's first bytes → the page has them; not on its thread. */
  commit: 7,
  /** From then on: first subresource requests. */
  discover: 14,
  /** From then on too: the parser inserts the body, when nothing blocks. */
  body: 37,
  /** A further piece of the document has come → it is read. */
  readPiece: 10,
  /** Decision to fetch → request sent: from markup, from a running script. */
  dispatchMarkup: 4,
  dispatchScript: 2.7,
  /** What each further request of a burst takes longer, and the most that this adds. */
  burstStep: 4.2,
  burstMost: 42,
  /** End of a script → its deferred import is asked for. */
  importDelay: 1.5,
  /** A module arrived → its static imports are known: by itself, and for each of them. */
  findImports: 2,
  perImport: 0.45,
  /** Response complete → evaluation starts, with a free thread. */
  startImport: 2.6,
  startAsync: 3.4,
  startBlocking: 3.5,
  startDefer: 4,
  /** Wait for the next frame (set by the screen, not by the CPU), then the work of drawing it. */
  frameWait: 8,
  paint: 16,
  /** First content → callbacks that wait for it. */
  paintCallback: 15,
  idle: 20,
  /** Styles are there → the font of a text is asked for, and what its request takes longer than others. */
  findFont: 5,
  dispatchFont: 12,
  /** A font has come → text that waited for it shows, or changes to it; besides a frame. */
  fontPaint: 22,
  fontSwap: 2,
  /** An answer names another address → that is asked for. */
  redirect: 17,
  /** A link is followed to a document that was fetched ahead → its first bytes are there. */
  openAhead: 15,
  /** A file is read from what the browser has kept: by itself, and for each kB. */
  diskRead: 4,
  diskReadPerKb: 0.13,
};

export type BrowserCosts = typeof REFERENCE_COSTS;

/**
 * Estimated cost of evaluating script on the reference machine, with the compilation of what runs then, in ms per byte of minified text. Of 24 files
 * over 10 kB of four apps that take parts of real packages one half took more than 0.054 ms per kB, nine of ten 0.03 to 0.1 (docs/SIMULATOR.md).
 */
export const EVALUATION_RATE = { low: 0.000025, likely: 0.00006, high: 0.00011 } as const;

/** What drawing takes of a page's thread, in ms, where it takes `renderMs` on the reference device. */
export function drawingMs({ cpuFactor, drawingFactor = 1 }: Device, renderMs: number): number {
  return renderMs * cpuFactor * drawingFactor;
}

/** How much less, and more, drawing may cost than is reckoned: what most of the measured apps did. */
export const DRAWING_RANGE = { low: 0.6, high: 1.7 } as const;

/**
 * Of script whose text is known, in ms per byte before compression: what is left to compile in the background when its last byte has come, and
 * its evaluation on the page's thread, mostly of definitions (facts 64, 65); and the share of that where its compiled code was kept
 * (fact 66: the third visit).
 */
export const CODE_RATE = { compile: 0.00002, run: 0.00006, keptShare: 0.36 } as const;

/**
 * Links by the situations in which people are on them. Round values of our own choosing, documented in docs/SIMULATOR.md; who knows better gives
 * values of their own. Round trips and name resolution in ms, rates in kbit/s.
 */
export const LINKS: readonly Link[] = [
  link('crowded-cell', 'Crowded cell', 120, 2200, 600, 35),
  link('clear-cell', 'Clear cell', 60, 11000, 3500, 18),
  link('shared-wifi', 'Shared Wi-Fi', 240, 2800, 700, 50),
  link('edge-of-coverage', 'Edge of coverage', 420, 450, 220, 90),
  link('home-line', 'Home line', 24, 38000, 9000, 7),
];

/** Devices by how much slower they run script than the reference machine, with their screens; chosen in the same way. */
export const DEVICES: readonly Device[] = [
  device('everyday-phone', 'Everyday phone', 3.5, 390, 844, true),
  device('worn-phone', 'Worn phone', 7, 360, 740, true),
  device('tablet', 'Tablet', 2.5, 820, 1180, true),
  device('laptop', 'Laptop', 1, 1280, 800, false),
  device('reference', 'Reference machine', 1, 1280, 800, false),
];

/** Links that were offered before, under the ids that limits and addresses may still name: with the values that they had, so that nothing agreed on changes. */
export const FORMER_LINKS: readonly Link[] = [
  link('crowded-4g', 'Crowded 4G, former', 150, 1600, 750, 40),
  link('clear-4g', 'Clear 4G, former', 70, 9000, 3000, 20),
  link('ferry-wifi', 'Ferry Wi-Fi, former', 300, 2400, 600, 60),
  link('edge-of-cover', 'Edge of coverage, former', 400, 500, 250, 80),
  link('home-cable', 'Home cable, former', 28, 30000, 10000, 8),
];

/** The same of devices. */
export const FORMER_DEVICES: readonly Device[] = [
  device('mid-phone', 'Mid phone, former', 4, 390, 844, true),
  device('old-phone', 'Old phone, former', 8, 360, 740, true),
];

export const DEFAULT_CONDITIONS: Conditions = { link: LINKS[0], device: DEVICES[0], cache: 'empty' };

function link(id: string, name: string, rttMs: number, downKbps: number, upKbps: number, dnsMs: number): Link {
  return { id, name, rttMs, downKbps, upKbps, dnsMs, protocol: 'h2', tls: '1.3', serverScheduling: 'fifo' };
}

function device(id: string, name: string, cpuFactor: number, width: number, height: number, touch: boolean): Device {
  return { id, name, cpuFactor, browserFactor: cpuFactor, viewport: { width, height }, touch, dataSaver: false };
}
