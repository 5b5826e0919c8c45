import { apportion } from '../chunks/apportion.ts';
import type { Chunk, ChunkGraph, Root } from '../chunks/types.ts';
import type { EffectivePlan } from '../plan/effective.ts';
import type { ClassicScript, DocumentLink } from '../snapshot/document-types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import {
  type ContentItem,
  type DataCall,
  DEFAULT_SERVER_MS,
  type Route,
  type RouteFont,
  type Submit,
} from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { addressOfFile, fileOfAddress, originOf } from '../text/address.ts';
import type { FirstScreen } from './first-screen.ts';
import type { LandedRoot } from './landing.ts';
import type { Effect, Group, LinkHint, LoadProgram, Resource, Screens } from './types.ts';

/** Collects the files of a load program: each chunk, image, call or script becomes one resource, once. */
export class Files {
  readonly resources: Resource[] = [];
  readonly groups: Group[] = [];
  private readonly ofChunk = new Map<number, number>();
  private readonly ofRoot = new Map<number, number>();
  private readonly ofAddress = new Map<string, number>();

  constructor(
    private readonly snapshot: Snapshot,
    private readonly graph: ChunkGraph,
    private readonly plan: Pick<EffectivePlan, 'loader' | 'deferred'>,
    private readonly firstScreen: FirstScreen,
  ) {}

  chunk(c: number, purpose: Resource['purpose']): number {
    const cached = this.ofChunk.get(c);
    if (cached !== undefined) {
      if (purpose === 'start') this.resources[cached].purpose = 'start';
      return cached;
    }
    const chunk = this.graph.chunks[c];
    const own = { ...emptyResource(), ...chunkFile(chunk, this.snapshot.base) };
    // A file that begins a realm lists the others, so that it changes with them.
    const starts = this.graph.roots.flatMap((r) => (r.kind === 'entry' ? r.target : []));
    const changes =
      chunk.modules.some((m) => starts.includes(m)) ||
      chunk.modules.some((m) => this.snapshot.modules[m].package === null);
    const at = this.resources.push({ ...own, purpose, chunk: c, ...(changes ? { changes } : {}) }) - 1;
    this.ofChunk.set(c, at);
    return at;
  }

  /** The load group of a root; what it evaluates last is what was asked for. */
  root(landed: LandedRoot, after: number[]): number {
    const cached = this.ofRoot.get(landed.root);
    if (cached !== undefined) return cached;
    const root = this.graph.roots[landed.root];
    const purpose = this.firstScreen.roots.has(landed.root) ? 'start' : 'later';
    const target = new Set(root.target);
    const chunks = [...root.group].sort((a, b) => this.holdsTarget(a, target) - this.holdsTarget(b, target));
    const resources = chunks.map((c) => this.chunk(c, purpose));
    const name = this.snapshot.modules[root.target[0]]?.path ?? 'entry';
    const at = this.groups.push({ name, resources, after, loader: this.plan.loader }) - 1;
    this.ofRoot.set(landed.root, at);
    if (this.plan.loader === 'discovered') this.linkImports(root.group);
    return at;
  }

  /** The script that begins a worker, which asks for what else it needs once it is there; null for one without any. */
  worker(root: Root): number | null {
    const scripts = root.group.filter((c) => this.graph.chunks[c].kind === 'script');
    const first = scripts.pop();
    if (first === undefined) return null;
    const isNew = !this.ofChunk.has(first);
    const begins = this.chunk(first, 'later');
    if (!isNew) return begins;
    const script = this.resources[begins];
    script.name = `${script.name} (worker)`;
    for (const c of scripts)
      script.follow.push({ when: 'eval', do: { kind: 'fetch', resource: this.chunk(c, 'later') } });
    return begins;
  }

  /** Whether the landing asks for a root because its first screen needs it. */
  isOfFirstScreen(root: number): boolean {
    return this.firstScreen.roots.has(root);
  }

  /** Path of the module that a root stands for. */
  targetPath(root: number): string {
    return this.snapshot.modules[this.graph.roots[root].target[0]]?.path ?? '';
  }

  /** The group of a root that was added before; −1 otherwise. */
  groupOf(root: number): number {
    return this.ofRoot.get(root) ?? -1;
  }

  single(resource: number): number {
    const group: Group = { name: this.resources[resource].name, resources: [resource], after: [], loader: 'listed' };
    return this.groups.push(group) - 1;
  }

  content(item: ContentItem): number {
    return this.shown(item, 'image');
  }

  font(font: RouteFont): number {
    return this.shown(font, 'font');
  }

  data(call: DataCall): number {
    return this.shown(call, 'fetch', 'no-store');
  }

  /** What a route shows besides its chunks, under its own address. */
  private shown(
    { id, address, bytes, serverMs }: ContentItem | RouteFont | DataCall,
    type: Resource['type'],
    cache: Resource['cache'] = 'immutable',
  ): number {
    return this.addressed(address, () => ({
      ...emptyResource(),
      ...placed(address),
      ...{ name: id, type, bytes, serverMs, cache, purpose: 'content' },
    }));
  }

  /** What the server answers when the person moves to a route that it draws. */
  answer(route: Route): number {
    const { bytes, serverMs } = route.document;
    return this.addressed(`${route.pattern} (answer)`, () => ({
      ...emptyResource(),
      address: route.pattern,
      name: `answer of ${route.pattern}`,
      type: 'fetch',
      bytes,
      serverMs,
      cache: 'no-store',
      purpose: 'content',
    }));
  }

  /** The document of a route, fetched ahead of a move there. */
  document(route: Route): number {
    const { bytes, serverMs } = route.document;
    return this.addressed(`${route.pattern} (document)`, () => ({
      ...emptyResource(),
      address: route.pattern,
      name: `document of ${route.pattern}`,
      type: 'fetch',
      bytes,
      serverMs,
      cache: 'no-store',
      purpose: 'content',
      document: true,
    }));
  }

  /** What an act sends to the server: the request itself, and one for each redirect; the last brings the answer. */
  submit(route: Route, part: string, { serverMs, bytes, redirects }: Submit): number[] {
    return Array.from({ length: redirects + 1 }, (_, at) => {
      const last = at === redirects;
      return this.addressed(`${route.pattern} (submit ${part} ${at})`, () => ({
        ...emptyResource(),
        address: route.pattern,
        name: at === 0 ? 'submit' : 'redirect',
        type: 'fetch',
        bytes: last ? bytes : 0,
        serverMs: at === 0 ? serverMs : 5,
        cache: 'no-store',
        purpose: 'content',
      }));
    });
  }

  /** Asks for a file ahead, as an effect. */
  ahead(resource: number, rel: LinkHint['rel']): Effect {
    return { kind: 'link', hint: { ...preloadOf(this, resource, rel), chosen: false } };
  }

  script(script: ClassicScript): number {
    return this.addressed(script.address, () => ({
      ...emptyResource(),
      ...placed(script.address),
      name: script.name,
      type: 'script',
      ...sized(script.bytes),
      serverMs: script.serverMs,
      cpuMs: script.evaluationMs,
      purpose: 'other script',
    }));
  }

  /** What a link in the document names: one of the known files, or a file that only the link knows of. */
  linked(link: DocumentLink, realm: string): number {
    const path = link.address.startsWith(this.snapshot.base) ? link.address.slice(this.snapshot.base.length) : '';
    const chunk = this.chunkNamed(fileOfAddress(path), realm);
    if (chunk >= 0) return this.chunk(chunk, 'later');
    return this.addressed(link.address, () => ({
      ...emptyResource(),
      ...placed(link.address),
      name: link.address.slice(link.address.lastIndexOf('/') + 1),
      type: LINKED_TYPES[link.as] ?? 'fetch',
      ...sized(link.bytes),
      purpose: 'content',
    }));
  }

  /** The chunk that is the real file of that path, or that holds the module of that path; −1 without one. */
  chunkNamed(path: string, realm: string): number {
    const module = graphIndex(this.snapshot).moduleAt.get(path);
    const script = module !== undefined && this.snapshot.modules[module].kind !== 'asset';
    return this.graph.chunks.findIndex(
      (c) => c.realm === realm && (c.file === path || (script && c.modules.includes(module))),
    );
  }

  /** Notes for every file of the start which of its bytes the first screen can do without. */
  noteIdle(): void {
    for (const item of this.resources) {
      if (item.purpose !== 'start' || item.chunk === undefined) continue;
      const { always, onScreens } = this.firstScreen;
      const idle = new Map<string, { bytes: number; unless: Screens[] }>();
      for (const { module, compressed } of apportion(this.snapshot, this.graph.chunks[item.chunk])) {
        if (always[module] || compressed === 0) continue;
        const unless = onScreens.get(module) ?? [];
        const key = JSON.stringify(unless);
        const sum = idle.get(key) ?? { bytes: 0, unless };
        sum.bytes += compressed;
        idle.set(key, sum);
      }
      if (idle.size > 0) item.idle = [...idle.values()];
    }
  }

  private addressed(address: string, make: () => Resource): number {
    let at = this.ofAddress.get(address);
    if (at === undefined) {
      at = this.resources.push(make()) - 1;
      this.ofAddress.set(address, at);
    }
    return at;
  }

  private holdsTarget(chunk: number, target: Set<number>): number {
    return this.graph.chunks[chunk].modules.some((m) => target.has(m)) ? 1 : 0;
  }

  /** Static imports between the files of one group, for a browser that discovers them one after another. */
  private linkImports(chunks: number[]): void {
    const index = graphIndex(this.snapshot);
    const home = new Map<number, number>();
    for (const c of chunks) for (const m of this.graph.chunks[c].modules) home.set(m, c);
    for (const c of chunks) {
      const found = new Set<number>();
      for (const m of this.graph.chunks[c].modules) {
        for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
          const i = index.outgoing[e];
          const to = this.plan.deferred[i] ? undefined : home.get(this.snapshot.imports[i].to);
          if (to !== undefined && to !== c) found.add(this.ofChunk.get(to)!);
        }
      }
      this.resources[this.ofChunk.get(c)!].imports = [...found];
    }
  }
}

function emptyResource(): Resource {
  return {
    address: '',
    name: '',
    origin: '',
    type: 'script',
    bytes: 0,
    serverMs: DEFAULT_SERVER_MS,
    cache: 'immutable',
    cpuMs: 0,
    estimatedBytes: 0,
    imports: [],
    follow: [],
    purpose: 'start',
  };
}

const LINKED_TYPES: Record<string, Resource['type']> = {
  script: 'script',
  style: 'style',
  image: 'image',
  font: 'font',
};

const slugs = new WeakMap<Chunk, string>();

/** A chunk's name as part of an address. */
function slugOf(chunk: Chunk): string {
  let slug = slugs.get(chunk);
  if (slug === undefined) {
    slug = chunk.name
      .replace(/[^A-Za-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .toLowerCase();
    slugs.set(chunk, slug);
  }
  return slug;
}

/** The address of a chunk’s file: of the real one where it is known, else one of its name and id. `base`: the app’s base address. */
export function addressOfChunk(chunk: Chunk, base: string): string {
  if (chunk.file !== undefined) return `${base}${addressOfFile(chunk.file)}`;
  const id = chunk.id.slice(chunk.id.lastIndexOf('/') + 1);
  return `${base}assets/${slugOf(chunk)}-${id}.${chunk.kind === 'style' ? 'css' : 'js'}`;
}

function chunkFile(
  chunk: Chunk,
  base: string,
): Pick<
  Resource,
  'address' | 'origin' | 'name' | 'type' | 'bytes' | 'cpuMs' | 'tabledMs' | 'estimatedBytes' | 'tabledBytes' | 'modules'
> {
  return {
    ...placed(addressOfChunk(chunk, base)),
    name: chunk.name,
    type: chunk.kind,
    bytes: chunk.bytes.gzip,
    cpuMs: chunk.measuredMs,
    ...(chunk.elsewhereMs > 0 ? { tabledMs: chunk.elsewhereMs } : {}),
    estimatedBytes: chunk.estimatedBytes,
    tabledBytes: chunk.tabledBytes,
    ...(chunk.kind === 'script' ? { modules: chunk.modules.length } : {}),
  };
}

function sized(bytes: number | null): Pick<Resource, 'bytes' | 'unknownSize'> {
  return bytes === null ? { bytes: 0, unknownSize: true } : { bytes };
}

function placed(address: string): { address: string; origin: string } {
  return { address, origin: originOf(address) };
}

/** How a file is asked for ahead, by its type. */
export function preloadOf(program: Pick<LoadProgram, 'resources'>, resource: number, rel: LinkHint['rel']): LinkHint {
  const { type, chunk } = program.resources[resource];
  const real = rel === 'modulepreload' && type !== 'script' ? 'preload' : rel;
  // A font is always asked for without credentials (CSS Fonts).
  const crossorigin =
    type === 'fetch' || type === 'font' || (type === 'script' && real === 'preload' && chunk !== undefined);
  return { rel: real, resource, as: type, chosen: true, ...(crossorigin ? { crossorigin } : {}) };
}
