import type { Part, PartCondition, Route } from '../../core/snapshot/route-types.ts';
import { shortName } from '../../core/text/short-name.ts';
import type { AskSheet } from '../data/ask-sheet.ts';
import type { FoundCall } from '../data/data-calls.ts';
import { type Failures, failuresOf } from '../failures.ts';
import { showsContent } from '../runs/page-writes.ts';
import { actToldBy, type ComponentUse } from './component-uses.ts';
import { type DrawnNames, isDrawnUnder, WHOLE } from './drawn-under.ts';
import type { DrawnWhen } from './drawn-when.ts';
import type { Origin } from './from-answers.ts';
import type { DrawnImage } from './images.ts';
import { type InnerActs, type InnerOf, withInnerActs } from './inner-marks.ts';
import { mediaIn, opposite } from './media.ts';
import type { Owners } from './owners.ts';
import { hidesItself } from './tests-around.ts';

/** What a module draws, with the components' specifiers resolved to paths. */
export interface DrawingModule {
  uses: ComponentUse[];
  /** What people do in the components that it defines. */
  innerActs: InnerActs;
  /** Which of its names draw what stands under which. */
  owners: Owners | null;
  images: readonly DrawnImage[];
  /** Specifiers of what it mounts as a whole app. */
  mounts: readonly string[];
  resolved: ReadonlyMap<string, string>;
  /** Paths of modules that it imports in a deferred way. */
  deferred: ReadonlySet<string>;
  /** The installed package that it belongs to. */
  package: string | null;
  /** What it does for components of other modules. */
  serves: Services;
  /** What it says about calls for data. */
  asks: AskSheet | null;
}

/**
 * A route as far as it is drawn; `beside`: modules that its folder starts besides its page; `components`: top-level names that it draws of
 * modules, by path, where they are known; `loaders`: functions that its router calls before it draws.
 */
export type DrawnRoute = Pick<Route, 'layouts' | 'page' | 'realm'> & {
  beside?: readonly string[];
  components?: ReadonlyMap<string, ReadonlySet<string>>;
  loaders?: readonly { path: string; name: string }[];
};

/** Modules that are drawn, with the names of each that are. */
export type DrawnPaths = ReadonlyMap<string, DrawnNames>;

/** What a module offers that decides when others are drawn. */
export interface Services {
  /** The media query that its function asks. */
  media: PartCondition | null;
  /** It draws what stands inside of its component only once that is in sight. */
  whenSeen: boolean;
  /** Its markup is drawn on the server, and only what is in there is sent as a component. */
  onServer: boolean;
  /** It may hide itself by an attribute that says whether it is open; otherwise such a one only changes how it looks. */
  hides: boolean;
  /** Its markup holds elements that show something by themselves: text, images, controls. */
  hasContent: boolean;
  failures: Failures;
}

export function servicesOf(path: string, text: string): Services {
  const exported = /\bexport\b/.test(text);
  // What packages draw is no part of the app's.
  const own = !path.includes('node_modules/');
  return {
    media: exported ? mediaIn(text) : null,
    whenSeen: exported && /\bIntersectionObserver\b/.test(text),
    onServer: path.endsWith('.astro'),
    hides: own && hidesItself(text),
    hasContent: own && showsContent(text),
    failures: failuresOf(text),
  };
}

/** An element of a document that a script defines. */
export interface DocumentElement {
  name: string;
  path: string;
  line: number;
}

/** The app as far as parts are looked for in it. */
export interface DrawnApp {
  moduleAt: (path: string) => DrawingModule | undefined;
  /** Modules that an entry draws around all of its routes. */
  shells: (realm: string) => readonly string[];
  /** The module that defines a name which another one may only pass on, and its name there. */
  definerOf: (path: string, name: string) => { path: string; name: string };
  /** The calls for data that a module makes. */
  callsOf: (path: string) => readonly FoundCall[];
  /** The calls for data that a function makes which the router calls. */
  callsOfLoader: (path: string, name: string) => readonly FoundCall[];
  /** The addresses of the calls from which comes what a module keeps under a name. */
  keptAt: (path: string, name: string) => readonly string[];
  /** Whether a module is the page of a route. */
  isPage: (path: string) => boolean;
  /** Elements that stand in the document of a realm, whose modules are known by their names. */
  inDocument: (realm: string) => readonly DocumentElement[];
  /** The module of an element that is known by its name. */
  elementAt: (name: string, from: string) => string | undefined;
}

/**
 * Proposes the parts of a route from the code: what its layouts and page draw themselves, whatever is deferred, and
 * whatever stands behind an action or a condition, at any depth. What a part behind an action draws belongs to it.
 * Whether something plainly drawn lies below the first screen can't be read off code unless a component around it waits
 * for it to be seen; it is proposed as on it. `drawn`: modules that are drawn at first, the route's own among them.
 */
export function proposeParts(route: DrawnRoute, app: DrawnApp): { parts: Part[]; drawn: DrawnPaths } {
  const { moduleAt, shells, isPage } = app;
  const parts = new Map<string, Part>();
  const drawn = new DrawnSoFar();
  const visit = (path: string, names: DrawnNames, direct: boolean, given: Given = NOTHING_GIVEN) => {
    const module = moduleAt(path);
    if (!module || module.package !== null || !drawn.add(path, names, given.after)) return;
    for (const use of module.uses) {
      if (!isDrawnUnder(use, module.owners, names)) continue;
      const { imported, target, taken } = usedBy(path, use, app);
      if (target === undefined || target === path || moduleAt(target)?.package !== null) continue;
      if (isFrameOf(route, target, app)) continue;
      const other = moduleAt(target)!;
      const within = givenTo(use, path, given, app, drawn.all);
      // What only waits for its content to be seen is no part itself.
      if (other.serves.whenSeen && use.specifier !== null) continue;
      // Nor is what draws pages, as the address asks for them, or what is drawn on the server; what these draw besides is.
      const drawsPages = (u: ComponentUse) =>
        isDrawnUnder(u, other.owners, taken) && isPage(other.resolved.get(u.specifier ?? '') ?? '');
      if (other.serves.onServer || other.uses.some(drawsPages)) {
        visit(target, taken, direct, within);
        continue;
      }
      const told = settled(
        whenShown(use, other),
        (specifier) => moduleAt(module.resolved.get(specifier) ?? '')?.serves,
      );
      const when = actToldBy(told, (words) => withInnerActs(words, path, innerOf(app)));
      if (when.kind !== 'drawn' || direct || module.deferred.has(target) || module.deferred.has(imported!)) {
        const known = parts.get(target);
        if (!known) parts.set(target, { ...partOf(target, when, use.line, use.file ?? path), ...waitingFor(within) });
        else if (known.drawnAfter) known.drawnAfter = known.drawnAfter.filter((a) => within.after.has(a));
      }
      if (when.kind === 'drawn' || when.kind === 'seen') visit(target, taken, false, within);
    }
  };
  for (const { module, line, path, alone } of elementsOf(route, app)) {
    if (!alone && module !== route.page && !parts.has(module))
      parts.set(module, partOf(module, { kind: 'drawn' }, line, path));
    visit(module, WHOLE, alone);
  }
  for (const shell of shells(route.realm)) visit(shell, WHOLE, true);
  for (const [path, names] of route.components ?? []) visit(path, names, true);
  for (const path of [...route.layouts, route.page]) if (!route.components?.has(path)) visit(path, WHOLE, true);
  for (const path of route.beside ?? []) if (moduleAt(path)?.package === null) drawn.add(path, WHOLE, new Set());
  return { parts: withIds([...parts.values()]), drawn: drawn.all };
}

/** What somebody draws a module with. */
interface Given {
  /** Addresses of calls without whose answers it isn't drawn. */
  after: ReadonlySet<string>;
  /** Addresses of the calls that what it is given comes from, by its names. */
  names: ReadonlyMap<string, ReadonlySet<string>>;
}

const NOTHING_GIVEN: Given = { after: new Set(), names: new Map() };

/** What a component that a module draws is drawn after and given, where the module itself is drawn with something. */
function givenTo(use: ComponentUse, path: string, given: Given, app: DrawnApp, drawn: DrawnPaths): Given {
  const { callsOf, moduleAt } = app;
  const calls =
    use.after || use.gives ? callsOf(path).filter((c) => !c.onAct && isMadeFor(use, c, moduleAt(path))) : [];
  const keptBy = (specifier: string, name: string): readonly string[] => {
    const to = moduleAt(path)?.resolved.get(specifier);
    if (to === undefined || moduleAt(to)?.package !== null) return [];
    const home = app.definerOf(to, name);
    return app.keptAt(home.path, home.name);
  };
  const answersIn = ({ lines, names, selected, imported = [] }: Origin): string[] => {
    const found = [
      ...imported.flatMap((i) => keptBy(i.specifier, i.name)),
      ...calls.filter((c) => c.lines.some((l) => lines.includes(l))).map((c) => c.address),
      ...names.flatMap((n) => [...(given.names.get(n) ?? [])]),
    ];
    return selected && found.length === 0 ? storedBy(drawn, app) : found;
  };
  const names = Object.entries(use.gives ?? {}).map(([name, origin]): [string, ReadonlySet<string>] => [
    name,
    new Set(answersIn(origin)),
  ]);
  return {
    after: use.after ? new Set([...given.after, ...answersIn(use.after)]) : given.after,
    names: new Map(names.filter(([, addresses]) => addresses.size > 0)),
  };
}

/** Addresses of the calls whose answers what is drawn so far puts into the store: what a component selects that loads nothing itself is among these. */
function storedBy(drawn: DrawnPaths, { callsOf, moduleAt }: DrawnApp): string[] {
  return [...drawn].flatMap(([path, names]) =>
    callsOf(path).flatMap((c) =>
      c.sent && !c.onAct && isDrawnUnder(c, moduleAt(path)?.owners ?? null, names) ? [c.address] : [],
    ),
  );
}

/** Whether a call belongs to what a use stands under, or to what leads there in the module: others may use the same names. */
function isMadeFor({ under }: ComponentUse, call: FoundCall, module: DrawingModule | undefined): boolean {
  if (under === undefined || call.under.length === 0) return true;
  return call.under.some((name) => name === under || module?.owners?.reach[name]?.includes(under));
}

/** What people do in a component of the app that another module draws. */
function innerOf(app: DrawnApp): InnerOf<string> {
  return (path, component) => {
    const place = usedBy(path, component, app).target;
    const module = place === undefined ? undefined : app.moduleAt(place);
    return module?.package === null ? { place: place!, acts: module.innerActs } : undefined;
  };
}

const waitingFor = ({ after }: Given): Pick<Part, 'drawnAfter'> => (after.size > 0 ? { drawnAfter: [...after] } : {});

/** What of which modules was met, and what it is drawn after wherever it is. */
class DrawnSoFar {
  readonly all = new Map<string, DrawnNames>();
  private readonly after = new Map<string, ReadonlySet<string>>();

  /** Notes that names of a module are drawn; false where they were already, after no more than these answers. */
  add(path: string, names: DrawnNames, after: ReadonlySet<string>): boolean {
    const known = this.all.get(path);
    const before = this.after.get(path) ?? after;
    const still = [...before].filter((a) => after.has(a));
    this.after.set(path, new Set(still));
    if (known === undefined) {
      this.all.set(path, names);
      return true;
    }
    if (still.length === before.size && [...names].every((n) => known.has(n))) return false;
    this.all.set(path, new Set([...known, ...names]));
    return true;
  }
}

/** What stands around a route, and any page, is no part of it, wherever it is drawn. */
function isFrameOf(route: DrawnRoute, module: string, { isPage, shells }: DrawnApp): boolean {
  return (
    isPage(module) || module === route.page || route.layouts.includes(module) || shells(route.realm).includes(module)
  );
}

/** The elements that stand in the document: one alone is the app, of several each is a part of the document. */
function elementsOf(
  route: DrawnRoute,
  { inDocument, elementAt, moduleAt }: DrawnApp,
): { module: string; line: number; path: string; alone: boolean }[] {
  const elements = inDocument(route.realm);
  return elements.flatMap(({ name, path, line }) => {
    const module = elementAt(name, path);
    if (module === undefined || moduleAt(module)?.package !== null) return [];
    return { module, line, path, alone: elements.length === 1 };
  });
}

/**
 * The module that a use leads to, as it is imported (or as an element's name tells), and the one behind it that defines what is drawn, with
 * the name that is taken of that.
 */
export function usedBy(
  path: string,
  { specifier, element, name }: Pick<ComponentUse, 'specifier' | 'element' | 'name'>,
  { moduleAt, elementAt, definerOf }: Pick<DrawnApp, 'moduleAt' | 'elementAt' | 'definerOf'>,
): { imported?: string; target?: string; taken: DrawnNames } {
  const imported = specifier === null ? elementAt(element ?? '', path) : moduleAt(path)?.resolved.get(specifier);
  if (imported === undefined || name === undefined) return { imported, target: imported, taken: WHOLE };
  const home = definerOf(imported, name);
  return { imported, target: home.path, taken: home.name === '*' ? WHOLE : new Set([home.name]) };
}

/** Whether a component is drawn with the module that uses it, under no condition and wherever it stands. `target`: the module that defines it. */
export function drawnAtOnce(
  use: ComponentUse,
  target: string,
  module: DrawingModule,
  { moduleAt }: Pick<DrawnApp, 'moduleAt'>,
): boolean {
  const shown = whenShown(use, moduleAt(target));
  return settled(shown, (specifier) => moduleAt(module.resolved.get(specifier) ?? '')?.serves).kind === 'drawn';
}

/** A use with when it is drawn as the module tells that defines it: of the app’s own components it is known whether they hide themselves. */
export function whenShown<T extends Pick<ComponentUse, 'when' | 'anyway'>>(
  use: T,
  target: DrawingModule | undefined,
): T {
  const hides = target === undefined || target.package !== null || target.serves.hides;
  return use.anyway === undefined || hides ? use : { ...use, when: use.anyway };
}

type Settled = Exclude<DrawnWhen, { kind: 'given' }>;

/** When a component is drawn, with what other modules have to say about it. */
function settled({ when, inside }: ComponentUse, served: (specifier: string) => Services | undefined): Settled {
  if (when.kind === 'given') {
    const condition = served(when.specifier)?.media;
    return condition
      ? { kind: 'condition', condition: when.holds ? condition : opposite(condition) }
      : { kind: 'drawn' };
  }
  return when.kind === 'drawn' && inside.some((s) => served(s)?.whenSeen) ? { kind: 'seen' } : when;
}

function partOf(module: string, when: Settled, line: number, path: string): Part {
  const name = shortName(module).replace(/[-_]/g, ' ');
  const common = { id: name, name, module, interactive: true, needs: [], evidence: { path, line } };
  switch (when.kind) {
    case 'action':
      return { ...common, place: 'action', action: when.action, share: 0.2 };
    case 'condition':
      return { ...common, place: 'conditional', condition: when.condition, share: 0.5 };
    case 'seen':
      return { ...common, place: 'below', share: 0.5 };
    case 'drawn':
      return { ...common, place: 'first screen', share: 1 };
  }
}

/** Ids must differ within a route, names may not. */
export function withIds(parts: Part[]): Part[] {
  const seen = new Map<string, number>();
  return parts.map((part) => {
    const n = (seen.get(part.id) ?? 0) + 1;
    seen.set(part.id, n);
    return n === 1 ? part : { ...part, id: `${part.id} ${n}` };
  });
}
