import type { Definition, Own, Setter, Value } from './definition.ts';

/** What it uses of a page. */
declare const document: {
  createElement(tag: string): { onload: () => void; onerror: () => void };
  head: { append(element: unknown): void };
};
declare const location: { href: string } | undefined;
declare const self: {
  addEventListener(type: string, heard: (event: Sent) => void): void;
  removeEventListener(type: string, heard: (event: Sent) => void): void;
  dispatchEvent(event: object): void;
};
/** What a worker is sent. */
interface Sent {
  type: string;
  data: unknown;
  origin: string;
  ports: readonly object[];
  source: object | null;
  stopImmediatePropagation(): void;
}
declare const MessageEvent: new (type: string, of: Omit<Sent, 'type' | 'stopImmediatePropagation'>) => object;
declare const Worker: new (address: string, options?: object) => object;
declare const SharedWorker: typeof Worker;
declare const reportError: (thrown: unknown) => void;

interface Elements {
  define(name: string, element: { prototype: { connectedCallback?: () => Value } }, options?: object): void;
}

/**
 * The registry that assembled files share: it takes modules in as files bring them, loads groups of files, and has modules run as
 * the language says: imports first, in their order, once; with live bindings, circles, functions that are there before anything
 * runs, waits at the top level, and CommonJS beside it. It is written into the first file of an app as text, so it uses nothing from
 * around it. `self.__parts` is what files call. `fetchScript`: how a file of script is loaded (`import()`, which isn’t part of a text that
 * is compiled).
 */
export function registry(fetchScript: (file: string) => Promise<unknown>): void {
  const definitions = new Map<number, Definition>();
  const modules = new Map<number, Module>();
  const times: Record<number, number> = {};
  /** What nested modules took of the time of the one that runs. */
  const nested: number[] = [];
  const now = () => performance.now();
  /** Modules that run just now, the innermost last. */
  const running: Module[] = [];

  /** Starting an app makes one of these for each of its modules: it is kept small. */
  class Module {
    readonly owns = new Set<string>();
    readonly values = new Map<string, Value>();
    readonly setters = new Map<string, Setter[]>();
    passed: Map<string, [from: number, name: string]> | null = null;
    stars: number[] = [];
    /** Imports that are tied once all modules have said what they declare: modules and names, in turn, and what sets the variable of each. */
    links: (number | string)[] = [];
    set: ((at: number, value: Value) => void) | null = null;
    tables: [names: Record<string, [from: number, name: string]>, set: Setter][] = [];
    body: Generator | AsyncGenerator | null = null;
    /** What its first step gave. */
    first: unknown = null;
    namespace: object | null = null;
    state: 'new' | 'linked' | 'running' | 'waits' | 'done' = 'new';
    /** Places in the search for circles; the first module of the circle that it belongs to. */
    index = -1;
    lowest = -1;
    root: Module;
    /** The how manieth that began to wait, for itself or for others; −1: none. */
    order = -1;
    pending = 0;
    parents: Module[] = [];
    finished = false;
    waiters: { done: () => void; fail: (thrown: unknown) => void }[] = [];
    readonly exports: { exports: Value } = { exports: {} };
    error: { thrown: unknown } | null = null;

    constructor(
      readonly id: number,
      readonly definition: Definition,
    ) {
      this.root = this;
    }
  }

  /** What an ES module’s function is given of the registry. */
  class Handed implements Own {
    constructor(private readonly m: Module) {}

    on(from: (number | string)[], set: (at: number, value: Value) => void): void {
      this.m.links = from;
      this.m.set = set;
    }

    all(names: Record<string, [from: number, name: string]>, set: Setter): void {
      this.m.tables.push([names, set]);
    }

    has(...names: string[]): void {
      for (const name of names) this.m.owns.add(name);
    }

    out(...values: unknown[]): void {
      for (let i = 0; i < values.length; i += 2) publish(this.m, values[i] as string, values[i + 1]);
    }

    pass(name: string, from: number, there: string): void {
      this.m.passed ??= new Map();
      this.m.passed.set(name, [from, there]);
    }

    star(from: number): void {
      this.m.stars.push(from);
    }

    load(specifier: string): Promise<Value> {
      return later(this.m, specifier);
    }

    url(specifier: string): string {
      return new URL(this.m.definition.urls?.[specifier] ?? specifier, location!.href).href;
    }

    worker(specifier: string): Value {
      const address = this.url(specifier);
      const made = /\?sharedworker\b/.test(specifier) ? SharedWorker : Worker;
      return class extends made {
        constructor(options?: object) {
          super(address, options);
        }
      };
    }

    get meta(): { url: string } {
      return { url: typeof location === 'undefined' ? '' : location.href };
    }
  }

  function at(id: number): Module | null {
    const known = modules.get(id);
    if (known) return known;
    const definition = definitions.get(id);
    if (!definition) return null;
    const made = new Module(id, definition);
    modules.set(id, made);
    return made;
  }

  /** The module that holds an exported name; null where none does. */
  function home(m: Module, name: string, seen: Set<Module> = new Set()): { module: Module; name: string } | null {
    if (m.definition.cjs || name === '*') return { module: m, name };
    if (seen.has(m)) return null;
    seen.add(m);
    if (m.owns.has(name)) return { module: m, name };
    const passed = m.passed?.get(name);
    if (passed) {
      const from = at(passed[0]);
      return from && home(from, passed[1], seen);
    }
    if (m.definition.plain) return { module: m, name };
    if (name === 'default') return null;
    for (const star of m.stars) {
      const from = at(star);
      const found = from && !from.definition.cjs ? home(from, name, seen) : null;
      if (found) return found;
    }
    // What such a module gives is known only once it ran.
    const loose = m.stars.map(at).find((from) => from?.definition.cjs);
    return loose ? { module: loose, name } : null;
  }

  /** What is taken of a CommonJS module under a name. */
  function ofCommonJs({ exports: { exports: all } }: Module, name: string, strict: boolean): Value {
    const own = all as Record<string, Value> | null | undefined;
    const isMarked = own != null && own.__esModule === true;
    if (name === 'default') return isMarked && !strict && 'default' in own ? own.default : all;
    return own == null ? undefined : own[name];
  }

  function heldBy(m: Module, name: string, strict: boolean): Value {
    if (name === '*') return namespaceOf(m, strict);
    if (m.definition.cjs) return ofCommonJs(m, name, strict);
    if (m.definition.plain && name !== 'default') return (m.values.get('default') as Record<string, Value>)?.[name];
    return m.values.get(name);
  }

  /** Gives a variable what a module exports under a name, now and whenever that changes. */
  function follow(from: number, name: string, set: Setter, strict: boolean): void {
    const m = at(from);
    const found = m && home(m, name);
    if (!found) return;
    const { module, name: there } = found;
    const { cjs, plain } = module.definition;
    if (!cjs && !plain && there !== '*') {
      if (module.values.has(there)) set(module.values.get(there));
      tie(module, there, set);
      return;
    }
    const isThere = there === '*' || module.state === 'done';
    if (isThere) set(heldBy(module, there, strict));
    if (cjs) tie(module, '*', () => set(heldBy(module, there, strict)));
    else if (there !== '*') tie(module, 'default', () => set(heldBy(module, there, strict)));
  }

  function followAll({ links, set }: Module, strict: boolean): void {
    for (let i = 0; i < links.length; i += 2) {
      const at = i / 2;
      follow(links[i] as number, links[i + 1] as string, (value) => set!(at, value), strict);
    }
  }

  function tie(m: Module, name: string, set: Setter): void {
    const known = m.setters.get(name);
    if (known) known.push(set);
    else m.setters.set(name, [set]);
  }

  /** All names that a module gives, of itself and of others. */
  function namesOf(m: Module, seen: Set<Module> = new Set()): Set<string> {
    if (seen.has(m)) return new Set();
    seen.add(m);
    if (m.definition.cjs) return new Set(Object.keys(Object(m.exports.exports)));
    const names = new Set([...m.owns, ...(m.passed?.keys() ?? [])]);
    for (const star of m.stars) {
      const from = at(star);
      for (const name of from ? namesOf(from, seen) : []) if (name !== 'default') names.add(name);
    }
    return names;
  }

  function namespaceOf(m: Module, strict: boolean): object {
    if (m.definition.cjs) {
      const all = m.exports.exports as Record<string, Value>;
      if (all != null && all.__esModule === true && !strict) return all;
      return made(
        Object.fromEntries(
          ['default', ...Object.keys(Object(all)).filter((n) => n !== 'default')].map((n) => [
            n,
            () => ofCommonJs(m, n, strict),
          ]),
        ),
      );
    }
    m.namespace ??= made(
      Object.fromEntries(
        [...namesOf(m)].sort().map((name) => [
          name,
          () => {
            const found = home(m, name);
            return found ? heldBy(found.module, found.name, strict) : undefined;
          },
        ]),
      ),
    );
    return m.namespace;
  }

  function made(getters: Record<string, () => Value>): object {
    const object = Object.create(null);
    for (const name of Object.keys(getters))
      Object.defineProperty(object, name, { enumerable: true, get: getters[name] });
    Object.defineProperty(object, Symbol.toStringTag, { value: 'Module' });
    // Builds say it of what a deferred import gives, and code that loads components by itself goes by it; nobody sees it who doesn't ask.
    Object.defineProperty(object, '__esModule', { value: true });
    return Object.seal(object);
  }

  /** Modules whose calls are noted, and what was noted of each: when a call began and ended, and whether it came to its end. */
  const watched = new Set<number>();
  const calls: Record<number, [began: number, ended: number, whole: boolean][]> = {};
  /** So many of a module are kept: a visit draws its rows again and again. */
  const MOST_CALLS = 2000;
  /** Under which names what draws is kept that isn’t a function itself. */
  const DRAWING = ['render', 'setup', 'type', 'component'];

  function noted(m: Module, call: () => Value): Value {
    const own = (calls[m.id] ??= []);
    const began = now();
    let whole = false;
    try {
      const value = call();
      whole = true;
      return value;
    } finally {
      if (own.length < MOST_CALLS) own.push([began, now(), whole]);
    }
  }

  /** What a watched module exports, so that its calls are noted; everything else about it stays. */
  function asWatched(m: Module, value: Value): Value {
    if (typeof value === 'function')
      return new Proxy(value, {
        apply: (to, self, given) => noted(m, () => Reflect.apply(to, self, given)),
        construct: (to, given, as) => noted(m, () => Reflect.construct(to, given, as)) as object,
      });
    if (typeof value !== 'object' || value === null || Object.isFrozen(value)) return value;
    // A route holds what it draws among its options.
    for (const held of [value, (value as Record<string, Value>).options] as (Record<string, Value> | undefined)[]) {
      if (typeof held !== 'object' || held === null || Object.isFrozen(held)) continue;
      for (const name of DRAWING) if (typeof held[name] === 'function') held[name] = asWatched(m, held[name]);
    }
    return value;
  }

  /** Elements that a watched module defines draw once they are in the page: that is noted like a call. What is called then is read as they are defined. */
  function watchElements(): void {
    const { customElements } = self as unknown as { customElements?: Elements };
    if (!customElements) return;
    const define = customElements.define.bind(customElements);
    customElements.define = (name, element, options) => {
      const m = running[running.length - 1];
      const { connectedCallback: connected } = element.prototype;
      if (m && watched.has(m.id))
        element.prototype.connectedCallback = function (this: object) {
          return noted(m, () => connected?.call(this));
        };
      define(name, element, options);
    };
  }
  watchElements();

  function publish(m: Module, name: string, given: Value): void {
    const value = watched.has(m.id) ? asWatched(m, given) : given;
    m.values.set(name, value);
    for (const set of m.setters.get(name) ?? []) set(value);
  }

  /**
   * Gets a module and all that it imports ready: what they declare is there, and bindings are tied. Gives what to wait for where a module
   * waits at its top level: only once such a one has come to rest at its `yield` does it go on at once when it is run.
   */
  function link(first: number): Promise<unknown> | null {
    const added: Module[] = [];
    const open = [first];
    for (let id = open.pop(); id !== undefined; id = open.pop()) {
      const m = at(id);
      if (m?.state !== 'new') continue;
      m.state = 'linked';
      added.push(m);
      if (m.definition.es) {
        const { es } = m.definition;
        m.body = es(new Handed(m));
        timed(m, enter);
      }
      open.push(...(m.definition.deps ?? []));
    }
    for (const m of added) {
      const strict = m.definition.strict === true;
      followAll(m, strict);
      for (const [names, set] of m.tables) set(tableOf(names, strict));
    }
    const waiting = added.filter((m) => m.definition.waits).map((m) => m.first);
    return waiting.length > 0 ? Promise.all(waiting) : null;
  }

  /** What an import of everything gives that leads to several modules. */
  function tableOf(names: Record<string, [from: number, name: string]>, strict: boolean): object {
    const getter =
      ([from, name]: [number, string]) =>
      () => {
        const there = at(from);
        const found = there && home(there, name);
        return found ? heldBy(found.module, found.name, strict) : undefined;
      };
    return made(Object.fromEntries(Object.entries(names).map(([as, taken]) => [as, getter(taken)])));
  }

  /** What is timed of a module: its first step, and its second. */
  function enter(m: Module): void {
    m.first = m.body!.next();
  }
  function goOn(m: Module): unknown {
    return m.body!.next();
  }

  /** Modules on the way from the first to the one whose imports are being run, with what the language keeps of each to find circles. */
  const stack: Module[] = [];
  let visits = 0;
  let begun = 0;

  /** Runs a module after all that it imports; gives what to wait for, if there is anything. */
  function run(m: Module): Promise<void> | null {
    visit(m);
    if (m.error) throw m.error.thrown;
    const { root } = m;
    if (root.state === 'done' || root.state === 'running') return null;
    return new Promise((done, fail) => root.waiters.push({ done, fail }));
  }

  /** A module after its imports, as the language has it: circles run as one, and what waits lets others go on. */
  function visit(m: Module): void {
    if (m.error || m.state === 'done' || m.state === 'waits' || m.state === 'running') return;
    if (m.definition.cjs) {
      m.state = 'running';
      runCommonJs(m);
      return;
    }
    m.state = 'running';
    m.index = m.lowest = visits++;
    stack.push(m);
    try {
      for (const id of m.definition.deps ?? []) {
        const dep = at(id);
        if (!dep || dep.definition.cjs) {
          if (dep) visit(dep);
          if (dep?.error) throw dep.error.thrown;
          continue;
        }
        visit(dep);
        if (dep.state === 'running') m.lowest = Math.min(m.lowest, dep.lowest);
        const whole = dep.state === 'running' ? dep : dep.root;
        if (whole.error) throw whole.error.thrown;
        if (whole.order >= 0 && whole.state !== 'done' && (dep.state !== 'running' || dep.order >= 0)) {
          m.pending++;
          whole.parents.push(m);
        }
      }
      if (m.pending > 0 || m.definition.waits) {
        m.order = begun++;
        if (m.pending === 0) wait(m);
      } else timed(m, goOn);
    } catch (thrown) {
      m.error = { thrown };
      while (stack.includes(m)) Object.assign(stack.pop()!, { error: { thrown }, state: 'done' });
      throw thrown;
    }
    if (m.lowest !== m.index) return;
    for (let member = stack.pop()!; ; member = stack.pop()!) {
      member.root = m;
      member.state = member.order >= 0 && !member.finished ? 'waits' : 'done';
      if (member === m) break;
    }
  }

  /** Runs a module that waits at its top level; those that wait for it go on in the order in which they came. */
  function wait(m: Module): void {
    Promise.resolve(timed(m, goOn)).then(
      () => finish(m),
      (thrown) => fail(m, thrown),
    );
  }

  function finish(m: Module): void {
    finished(m);
    const ready: Module[] = [];
    const gather = (from: Module) => {
      for (const parent of from.parents) {
        if (parent.error || --parent.pending > 0) continue;
        ready.push(parent);
        if (!parent.definition.waits) gather(parent);
      }
    };
    gather(m);
    for (const parent of ready.sort((a, b) => a.order - b.order)) {
      if (parent.error) continue;
      if (parent.definition.waits) {
        wait(parent);
        continue;
      }
      try {
        timed(parent, goOn);
        finished(parent);
      } catch (thrown) {
        fail(parent, thrown);
      }
    }
  }

  function finished(m: Module): void {
    m.finished = true;
    if (m.state === 'waits') m.state = 'done';
    for (const { done } of m.waiters.splice(0)) done();
  }

  function fail(m: Module, thrown: unknown): void {
    m.error ??= { thrown };
    m.state = 'done';
    for (const waiter of m.waiters.splice(0)) waiter.fail(thrown);
    for (const parent of m.parents.splice(0)) if (!parent.error) fail(parent, thrown);
  }

  function runCommonJs(m: Module): void {
    const { definition, exports } = m;
    const require = (specifier: string): Value => {
      const to = definition.required?.[specifier];
      const dep = to === undefined ? null : at(to);
      if (!dep && definition.empty?.includes(specifier)) return {};
      if (!dep) throw new Error(`no module ${specifier}`);
      if (dep.state === 'new') link(dep.id);
      run(dep);
      if (dep.definition.cjs) return dep.exports.exports;
      return dep.definition.plain ? dep.values.get('default') : namespaceOf(dep, false);
    };
    timed(m, () => definition.cjs!.call(exports.exports, exports.exports as object, require, exports));
    m.state = 'done';
    for (const set of m.setters.get('*') ?? []) set(undefined);
  }

  /** Does something of a module and adds what it took by itself to its time, in ms. */
  function timed(m: Module, body: (m: Module) => unknown): unknown {
    const began = now();
    nested.push(0);
    running.push(m);
    try {
      return body(m);
    } catch (thrown) {
      m.error = { thrown };
      throw thrown;
    } finally {
      running.pop();
      const took = now() - began;
      times[m.id] = (times[m.id] ?? 0) + took - nested.pop()!;
      if (nested.length > 0) nested[nested.length - 1] += took;
    }
  }

  /** Files that are there, that are on their way, and what waits for them. */
  const there = new Set<string>();
  const coming = new Map<string, Promise<void>>();
  let groups: Record<number, string[]> = {};
  const starts: { files: string[]; modules: number[] }[] = [];

  function fetchSheet(file: string): Promise<void> {
    return new Promise((done, fail) => {
      const link = document.createElement('link');
      Object.assign(link, { rel: 'stylesheet', href: file });
      link.onload = () => done();
      link.onerror = () => fail();
      document.head.append(link);
    });
  }

  function fetchFile(file: string): Promise<void> {
    const known = coming.get(file);
    if (known) return known;
    const failed = () => {
      coming.delete(file);
      throw new Error(`${file} can’t be loaded`);
    };
    const wait = /\.css$/.test(file) ? fetchSheet(file).catch(failed) : fetchScript(file).then(() => {}, failed);
    coming.set(file, wait);
    return wait;
  }

  async function later(m: Module, specifier: string): Promise<Value> {
    const [id, root, renamed] = m.definition.later?.[specifier] ?? [-1, -1];
    await Promise.all((groups[root] ?? []).filter((file) => !there.has(file)).map(parts.fetch));
    if (!at(id)) throw new Error(`no module ${specifier}`);
    await link(id);
    await run(at(id)!);
    const all = namespaceOf(at(id)!, m.definition.strict === true) as Record<string, Value>;
    if (!renamed) return all;
    const getters = Object.fromEntries([
      ...Object.keys(all).map((name): [string, () => Value] => [name, () => all[name]]),
      ...renamed.map(([as, name]): [string, () => Value] => [as, () => (name === '*' ? all : all[name])]),
    ]);
    return made(getters);
  }

  function begin(): void {
    for (const start of starts.splice(0)) {
      if (!start.files.every((file) => there.has(file))) {
        starts.push(start);
        continue;
      }
      let before: Promise<void> | null = null;
      for (const id of start.modules) {
        const m = at(id);
        if (!m) throw new Error(`no module ${id}`);
        const go = () => run(m);
        const ready = link(id);
        if (before || ready) before = Promise.all([before, ready]).then(() => go() ?? undefined);
        else before = go();
      }
      Promise.resolve(before)
        .catch((thrown) => reportError(thrown))
        .then(release);
    }
  }

  /** What a worker is sent while files of it are still on their way. */
  const sent: Sent[] = [];
  const MAIL = ['message', 'connect'];
  function keep(event: Sent): void {
    event.stopImmediatePropagation();
    sent.push(event);
  }

  function release(): void {
    for (const type of MAIL) self.removeEventListener?.(type, keep);
    for (const { type, data, origin, ports, source } of sent.splice(0))
      self.dispatchEvent(new MessageEvent(type, { data, origin, ports: [...ports], source }));
  }

  const parts = {
    /** Takes in what a file brings. */
    add(file: string, brought: Record<number, Definition>): void {
      for (const id of Object.keys(brought)) definitions.set(Number(id), brought[Number(id)]);
      there.add(file);
      begin();
    },
    /** Says which files each root needs. */
    map(all: Record<number, string[]>): void {
      groups = { ...groups, ...all };
    },
    /** Says of which modules calls of what they export are to be noted. */
    watch(modules: number[]): void {
      for (const id of modules) watched.add(id);
    },
    /** Runs modules, one after the other, as soon as files are there. */
    start(files: string[], first: number[]): void {
      starts.push({ files, modules: first });
      begin();
    },
    fetch: fetchFile,
    /** Keeps what is sent to a worker until its modules have run, as browsers do until its script has. */
    hold(): void {
      for (const type of MAIL) self.addEventListener(type, keep);
    },
    /** What each module took by itself when it ran, in ms. */
    times,
    /** What was noted of calls of watched modules, in ms. */
    calls,
  };
  const early = (self as unknown as { __parts?: { early: [string, Record<number, Definition>][] } }).__parts?.early;
  Object.assign(self, { __parts: parts });
  // Files that were quicker than the one that holds this.
  for (const [file, brought] of early ?? []) parts.add(file, brought);
}
