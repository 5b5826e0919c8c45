import type { Address, AskSheet, StoreModule } from './ask-sheet.ts';

/** A function of a module that is called when a message comes. */
export interface Listener {
  path: string;
  callee: string;
}

/** What finding listeners takes of the app: its modules, and what names and addresses mean in them. */
export interface Listened {
  paths: () => Iterable<string>;
  sheetAt: (path: string) => AskSheet | null;
  /** The text of an address; null where not all of it is known. */
  textOf: (path: string, address: Address) => string | null;
  /** The module and name where what a dotted name of a module stands for is kept. */
  homeOf: (path: string, name: string) => { path: string; name: string };
}

/** How many modules of a store stand inside of one another. */
const DEEPEST = 8;

/** Who listens to which message, in all of the app. Looked for when it is asked about for the first time. */
export class Listeners {
  private known: ReadonlyMap<string, Listener[]> | null = null;

  constructor(private readonly app: Listened) {}

  /** Whether nobody listens to anything. */
  get isEmpty(): boolean {
    return this.all().size === 0;
  }

  /** Who listens to a message that a module sends. What a module of a store sends without the name of that is for its own. */
  of(path: string, message: Address): readonly Listener[] {
    const key = this.keyOf(path, message);
    const found = key === null ? [] : (this.all().get(key) ?? []);
    if (found.length > 0 || key === null || !/^\w+$/.test(key)) return found;
    const inside = [...this.all()].flatMap(([k, to]) => (k.endsWith(`/${key}`) ? to : []));
    const own = inside.filter((l) => l.path === path);
    return own.length > 0 ? own : inside.length === 1 ? inside : [];
  }

  /** What a message is known by: its text, or else where the constant stands that names it. */
  private keyOf(path: string, message: Address): string | null {
    const text = this.app.textOf(path, message);
    if (text !== null) return text;
    const [piece, ...more] = message;
    if (more.length > 0 || !piece || !('constant' in piece)) return null;
    const home = this.app.homeOf(path, piece.constant);
    return `${home.path}#${home.name}`;
  }

  private all(): ReadonlyMap<string, Listener[]> {
    if (this.known) return this.known;
    const found = new Map<string, Listener[]>();
    this.known = found;
    const add = (key: string, listener: Listener) => {
      const all = found.get(key) ?? [];
      if (!all.some((l) => l.path === listener.path && l.callee === listener.callee)) all.push(listener);
      found.set(key, all);
    };
    for (const path of this.app.paths()) {
      const sheet = this.app.sheetAt(path);
      for (const { message, callee } of sheet?.listens ?? []) {
        const key = this.keyOf(path, message);
        if (key !== null) add(key, { path, callee });
      }
      for (const store of sheet?.stores ?? []) if (store.isRoot) this.addStore(path, store, '', add, DEEPEST);
    }
    return found;
  }

  /** Adds the functions of a store, and of the modules in it, by the messages that they are called by. */
  private addStore(
    path: string,
    { actions, modules }: StoreModule,
    space: string,
    add: (key: string, listener: Listener) => void,
    depth: number,
  ): void {
    if (actions !== null) {
      const home = this.app.homeOf(path, actions);
      const prefix = home.name === '' ? '' : `${home.name}.`;
      for (const name of this.app.sheetAt(home.path)?.functions.keys() ?? [])
        if (name.startsWith(prefix) && /^\w+$/.test(name.slice(prefix.length)))
          add(`${space}${name.slice(prefix.length)}`, { path: home.path, callee: name });
    }
    if (depth === 0) return;
    for (const { key, name } of modules) {
      const home = this.app.homeOf(path, name);
      const module = this.app.sheetAt(home.path)?.stores.find((s) => s.name === home.name);
      if (module) this.addStore(home.path, module, module.isNamespaced ? `${space}${key}/` : space, add, depth - 1);
    }
  }
}
