import { has } from '../chunks/bits.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { type EffectivePlan, tellsFailure } from '../plan/effective.ts';
import type { SplitSettings } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Part, Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { shortName } from '../text/short-name.ts';
import type { Trigger } from '../vocabulary/triggers.ts';
import { DRAWING, type Drawing, type DrawingPrice, listsIn } from './drawing.ts';
import type { Files } from './files.ts';
import { FIRST_FORMATS_MS } from './first-format-cost.ts';
import { chunkOf, type LandedRoot, type Landing } from './landing.ts';
import { aroundPage, entryModules } from './part-modules.ts';
import { placeOf, screensOf } from './places.ts';
import { comesWithCode, firesOnLanding, momentOf } from './trigger-rules.ts';
import type { Need, PartFont, ScreenPart } from './types.ts';

/** What the person sees of a landing: the shell, the page and the parts whose code the landing loads. */
export function screenParts(
  snapshot: Snapshot,
  plan: EffectivePlan,
  graph: ChunkGraph,
  landing: Landing,
  files: Files,
  drawing: Drawing,
): ScreenPart[] {
  const { route } = landing;
  const screen = new ScreenOf(snapshot, plan, graph, landing, files, drawing);
  screen.addShellAndPage();
  for (const part of route.parts) screen.addPart(part);
  screen.addUnnamed();
  screen.addApart();
  widenFallbacks(plan, route, screen.parts);
  return screen.parts;
}

/** The parts of one landing's screen, as they are found one after the other. */
class ScreenOf {
  readonly parts: ScreenPart[] = [];
  private readonly route: Route;
  private readonly drawnBy: ScreenPart['drawnBy'];
  /** Index of the page among the parts; −1 without one. */
  private page = -1;
  /** Something of what was drawn formats once data is there, which nothing that is filled with data has paid for yet. */
  private formatsLater = false;
  /** Modules that are drawn by what stands around all pages, and by the page. */
  private draws: Record<'frame' | 'page', ReadonlySet<number>> | null = null;

  constructor(
    private readonly snapshot: Snapshot,
    private readonly plan: EffectivePlan,
    private readonly graph: ChunkGraph,
    private readonly landing: Landing,
    private readonly files: Files,
    private readonly drawing: Drawing,
  ) {
    this.route = landing.route;
    this.drawnBy = landing.route.rendering === 'server' ? 'document' : 'script';
  }

  addShellAndPage(): void {
    const { route, files, drawing } = this;
    const started = entryModules(this.snapshot, route);
    const [shell, ...layouts] = aroundPage(this.snapshot, route);
    if (shell) {
      const price = this.filled(this.priceOf('shell', drawing.of([shell], started)), []);
      this.add('shell', 'shell', shell, 'first screen', { ...this.fonts(), ...price });
    }
    const claimed = new Set(route.parts.flatMap((p) => p.needs));
    const images = this.imagesAmong((c) => c.place === 'first screen' && !claimed.has(c.id));
    const calls = this.callsAmong((d) => !claimed.has(d.id));
    const price = drawing.of([...layouts, route.page], shell ? [] : started, listsIn(route.pageAfter, calls));
    this.add('page', shortName(route.page), route.page, 'first screen', {
      ...this.fonts(),
      ...this.filled(this.priceOf('page', price), calls),
      after: shell ? [0] : [],
      fill: [...images.map((c) => files.content(c)), ...calls.map((d) => files.data(d))],
    });
    this.page = this.parts.findIndex((p) => p.id === 'page');
    if (this.page >= 0) this.parts[this.page].needs.push(...this.answersOf(route.pageAfter));
    if (route.shellWaits) this.letShellWait();
  }

  /** What has to be drawn before a part: the page, or what stands around all pages where that alone draws it. */
  private around({ module }: Part): number[] {
    const { snapshot, route, drawing, drawnBy, page } = this;
    const shell = this.parts.findIndex((p) => p.id === 'shell');
    this.draws ??= {
      frame: drawing.drawnFrom(shell < 0 ? entryModules(snapshot, route) : aroundPage(snapshot, route).slice(0, 1)),
      page: drawing.drawnFrom([...route.layouts, route.page]),
    };
    const at = graphIndex(snapshot).moduleAt.get(module) ?? -1;
    const isFrames = drawnBy === 'script' && this.draws.frame.has(at) && !this.draws.page.has(at);
    return [isFrames ? shell : page].filter((p) => p >= 0);
  }

  /** The shell needs what the page needs, where it was seen that it doesn’t show before. */
  private letShellWait(): void {
    const shell = this.parts.find((p) => p.id === 'shell');
    const page = this.parts[this.page];
    if (!shell || !page || this.drawnBy !== 'script') return;
    const known = new Set(shell.needs.map((n) => n.resource));
    shell.needs = [...shell.needs, ...page.needs.filter((n) => !known.has(n.resource))];
  }

  addPart(part: Part): void {
    const { plan, route, files } = this;
    const place = placeOf(part);
    const settings = plan.settings.get(part.module) ?? {};
    const { run, show } = settings;
    const waits = [run, show].find((t) => t && !firesOnLanding(t, route, part.module));
    if (place === 'later' || (waits && place === 'below')) return;
    const screens = screensOf(part);
    const own = {
      after: this.around(part),
      ...(screens ? { screens } : {}),
    };
    const images = this.imagesAmong((c) => part.needs.includes(c.id)).map((c) => files.content(c));
    if (part.noScript) {
      this.parts.push({ ...drawnPart(part.id, part.name, place), interactive: false, ...own, fill: images });
      return;
    }
    const calls = this.callsAmong((d) => part.needs.includes(d.id)).map((d) => files.data(d));
    this.add(part.id, part.name, part.module, place, {
      interactive: part.interactive,
      ...this.filled(this.pricedPart(part, calls), calls),
      ...own,
      fill: [...images, ...calls],
      ...shownAs(settings, waits, this.page),
    });
    if (this.parts.at(-1)?.id === part.id) this.parts.at(-1)!.needs.push(...this.answersOf(part.drawnAfter));
  }

  /** Answers that script waits for before it draws something, of those that the landing asks for. */
  private answersOf(ids: readonly string[] = []): Need[] {
    return this.callsAmong((d) => ids.includes(d.id)).map((d) => ({ resource: this.files.data(d), state: 'arrived' }));
  }

  /** What split points of the first screen draw that nobody has named as a part. */
  addUnnamed(): void {
    const { snapshot, landing, files } = this;
    const index = graphIndex(snapshot);
    const known = new Set(this.route.parts.map((p) => p.module));
    for (const landed of landing.roots) {
      const path = files.targetPath(landed.root);
      if (landed.inChain || known.has(path) || !files.isOfFirstScreen(landed.root)) continue;
      const asked = landed.drawn && snapshot.modules[index.moduleAt.get(path) ?? -1]?.kind === 'script';
      const needs = needsOf(files, files.root(landed, []));
      if (!asked) continue;
      const price = this.filled(this.priceOf(path, this.drawing.of([path])), []);
      this.parts.push({ ...unnamedPart(path, needs, this.page), ...price });
    }
  }

  /** What comes later than what was drawn before it, with code or answers of its own, is drawn by itself. */
  addApart(): void {
    const before = new Set<string>();
    this.parts.forEach((part, i) => {
      const own = part.needs.map(({ resource, state }) => `${resource} ${state}`);
      const comesLater = own.some((need) => !before.has(need));
      if (i > 0 && comesLater && part.drawnBy === 'script' && !part.measured) part.renderMs += DRAWING.apart;
      for (const need of own) before.add(need);
    });
  }

  /** What drawing something of the route takes: as measured, or as reckoned. */
  private priceOf(id: string, reckoned: DrawingPrice): PartPrice {
    const { draws = {} } = this.route;
    return Object.hasOwn(draws, id) ? { ...reckoned, ms: draws[id], measured: true } : reckoned;
  }

  private pricedPart(part: Part, calls: readonly unknown[]): PartPrice {
    const price = this.drawing.ofPart(part, listsIn(part.drawnAfter, calls));
    return { ...price, ...(part.drawMs === undefined ? {} : { measured: true }) };
  }

  /**
   * What a part takes, with what it is filled with: `calls`, of which those that it waits for are there before. What formats only with data does so with the first
   * answers that fill something, or at once where no data is asked for.
   */
  private filled(price: PartPrice, calls: readonly unknown[]): PriceFields {
    this.formatsLater ||= price.formatsLater === true;
    const fills = this.drawnBy === 'script' && calls.length > 0;
    if (!fills && (!this.formatsLater || this.callsAmong(() => true).length > 0)) return pricedAt(price);
    const formats = this.formatsLater ? FIRST_FORMATS_MS : 0;
    this.formatsLater = false;
    if (!fills) return pricedAt({ ...price, ms: price.ms + formats, tabled: price.tabled + formats });
    const fillMs = (price.fill ?? 0) + formats;
    const tabled = Math.min(fillMs, (price.fillTabled ?? 0) + formats);
    return { ...pricedAt(price), ...(fillMs > 0 ? { fillMs } : {}), ...(tabled > 0 ? { fillTabledMs: tabled } : {}) };
  }

  private add(
    id: string,
    name: string,
    path: string,
    place: ScreenPart['place'],
    more: Partial<ScreenPart> & Pick<ScreenPart, 'renderMs'>,
  ): void {
    const { snapshot, plan, graph, landing, files, drawnBy } = this;
    const module = graphIndex(snapshot).moduleAt.get(path);
    const isPlanned = (landed: LandedRoot) => plan.triggers.has(files.targetPath(landed.root));
    const home =
      module === undefined ? undefined : homeOf(graph, landing, module, more.drawnBy ?? drawnBy, place, isPlanned);
    if (module !== undefined && home === undefined) return;
    const needs = home === undefined ? [] : needsOf(files, files.root(home, []));
    // On the first screen, what nothing asks for is missed; elsewhere nobody has come to it yet.
    const held = place === 'first screen' && home && !landing.roots.includes(home) ? { held: home.trigger } : {};
    const tells = tellsFailure(plan, path) ? { tellsFailure: true } : {};
    this.parts.push({ ...drawnPart(id, name, place), drawnBy, needs, ...held, ...tells, ...more });
  }

  /** Fonts whose sheets the landing loads, for the text of the shell and the page. */
  private fonts(): Pick<ScreenPart, 'fonts'> {
    const { route, files, graph, landing, snapshot } = this;
    const fonts = (route.fonts ?? []).flatMap((font): PartFont[] => {
      const module = graphIndex(snapshot).moduleAt.get(font.declaredBy);
      const chunk = module === undefined ? -1 : chunkOf(graph, landing.roots, module);
      if (chunk < 0) return [];
      return [{ resource: files.font(font), declaredBy: files.chunk(chunk, 'later'), display: font.display }];
    });
    return fonts.length > 0 ? { fonts } : {};
  }

  private comes(path: string): boolean {
    return loads(this.snapshot, this.graph, this.landing, path);
  }

  /** Images that come with the landing, of those that are meant. */
  private imagesAmong(meant: (item: Route['content'][number]) => boolean): Route['content'] {
    return this.route.content.filter(
      (c) => meant(c) && !c.lazy && (c.foundIn === 'document' || this.comes(c.foundIn.module)),
    );
  }

  /** Data calls that script makes on the landing, of those that are meant. */
  private callsAmong(meant: (call: Route['data'][number]) => boolean): Route['data'] {
    if (this.drawnBy !== 'script') return [];
    return this.route.data.filter((d) => meant(d) && this.comes(d.module));
  }
}

/** How a part shows, as its split point's settings say; `waits`: the trigger that doesn't fire on the landing. */
function shownAs(
  { show, fallback, together, clientOnly }: SplitSettings,
  waits: Trigger | undefined,
  page: number,
): Partial<ScreenPart> {
  // What is shown later than the document could have drawn it is drawn by script.
  const byScript = clientOnly || (show && waits === show);
  return {
    ...(byScript ? { drawnBy: 'script' as const } : {}),
    ...(fallback ? { fallback } : {}),
    ...(waits ? { held: waits } : show ? { showWhen: shownAt(show, page) } : {}),
    ...(together ? { together } : {}),
  };
}

/**
 * What a split point draws that nobody has named as a part, under the part that it belongs to: code that is asked for
 * while the screen is drawn is waited for by what asks.
 */
export function unnamedPart(path: string, needs: Need[], parent: number): ScreenPart {
  const after = parent < 0 ? [] : [parent];
  return { ...drawnPart(path, shortName(path), 'first screen'), drawnBy: 'script', needs, after };
}

/** The part whose place tells when a part comes into view: itself where the document draws it, else the page around it. */
export function placeholderOf(route: Route, parts: readonly ScreenPart[], path: string): number {
  const part = route.parts.find((p) => p.module === path);
  const own = parts.findIndex((p) => p.id === part?.id);
  return own >= 0 && parts[own].drawnBy === 'document' ? own : parts.findIndex((p) => p.id === 'page');
}

function shownAt(show: Trigger, page: number): ScreenPart['showWhen'] {
  return show.on === 'visible' ? { when: 'visible', target: page } : momentOf(show);
}

type PartPrice = DrawingPrice & Pick<ScreenPart, 'measured'>;
type PriceFields = Pick<ScreenPart, 'renderMs' | 'tabledMs' | 'showsMs' | 'fillMs' | 'fillTabledMs' | 'measured'>;

/** What drawing a part takes, as its fields. */
export function pricedAt({ ms, tabled, shows, measured }: PartPrice): PriceFields {
  return {
    renderMs: ms,
    ...(tabled > 0 ? { tabledMs: Math.min(ms, tabled) } : {}),
    ...(shows === undefined ? {} : { showsMs: shows }),
    ...(measured ? { measured } : {}),
  };
}

/** Something that the document draws for nothing, that answers, and needs nothing. */
export function drawnPart(id: string, name: string, place: ScreenPart['place']): ScreenPart {
  return {
    id,
    name,
    place,
    drawnBy: 'document',
    needs: [],
    interactive: true,
    after: [],
    fill: [],
    renderMs: 0,
    onItsOwn: true,
  };
}

/**
 * A fallback in place of the page or the whole app: those too are drawn only when the part's code is there, and the
 * stand-in is theirs. What the server drew is there anyhow.
 */
function widenFallbacks(plan: EffectivePlan, route: Route, parts: ScreenPart[]): void {
  for (const { id, module } of route.parts) {
    const part = parts.find((p) => p.id === id);
    const { fallback } = plan.settings.get(module) ?? {};
    if (part?.drawnBy !== 'script' || !fallback || (fallback.scope ?? 'part') === 'part') continue;
    if (!comesWithCode(plan.triggers.get(module) ?? { on: 'at once' })) continue;
    for (const within of parts) {
      if (within.drawnBy !== 'script' || (within.id !== 'page' && (within.id !== 'shell' || fallback.scope !== 'app')))
        continue;
      within.standInNeeds ??= within.needs;
      within.needs = [
        ...within.needs,
        ...part.needs.filter((n) => !within.needs.some((o) => o.resource === n.resource)),
      ];
      within.fallback = fallback;
    }
    part.fallback = { show: 'nothing', holdMs: 0 };
  }
}

/** Whether a landing loads a module. */
export function loads(snapshot: Snapshot, graph: ChunkGraph, landing: Landing, path: string): boolean {
  const module = graphIndex(snapshot).moduleAt.get(path);
  return module !== undefined && chunkOf(graph, landing.roots, module) >= 0;
}

/**
 * The root whose code makes a module draw: one that the landing asks for, or one that is asked for later, where the
 * document draws it already (so that it answers only then) or where it has its place on the first screen and the plan
 * lets its code, or that of what holds it, wait for something else.
 */
function homeOf(
  graph: ChunkGraph,
  landing: Landing,
  module: number,
  drawnBy: ScreenPart['drawnBy'],
  place: ScreenPart['place'],
  isPlanned: (landed: LandedRoot) => boolean,
): LandedRoot | undefined {
  const here = landing.roots.find((l) => chunkOf(graph, [l], module) >= 0);
  if (here || (drawnBy === 'script' && place !== 'first screen')) return here;
  const own = landing.later.find((l) => graph.roots[l.root].target[0] === module);
  if (own || place !== 'first screen') return own;
  return landing.later.find((l) => isPlanned(l) && has(graph.roots[l.root].reach, module));
}

/** Scripts of a group that have to be evaluated, and styles that have to be there, before what it brings can draw. */
export function needsOf(files: Files, group: number): Need[] {
  return files.groups[group].resources.map((resource) => ({
    resource,
    state: files.resources[resource].type === 'script' ? 'evaluated' : 'arrived',
  }));
}
