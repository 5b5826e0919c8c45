import type { CallBeginning } from '../../core/snapshot/route-types.ts';
import { withOperation } from '../../core/text/query-operation.ts';
import type { Address, AddressPiece, Ask, AskSheet } from './ask-sheet.ts';
import { queryName } from './graphql.ts';
import { asksByItself, propertyOf } from './leads.ts';
import { Listeners } from './listeners.ts';

/** A call for data that a module makes: where it leads, and the line of the module in which it begins. */
export interface FoundCall {
  address: string;
  line: number;
  /** Made when a person acts. */
  onAct: boolean;
  /** Top-level names of the module whose components make it; empty where the module does as it runs. */
  under: string[];
  /** Lines of the module that it goes through. */
  lines: number[];
  /** What it brings goes into a store, where others find it. */
  sent: boolean;
  /** `evaluated`: as the module runs, or as the router does before it draws. */
  begins: CallBeginning;
  /** The router waits for its answer before it draws the page. */
  ofRouter: boolean;
  /** What makes it isn't drawn before its answer is there, nor is what stands around that, up to a placeholder. */
  holds: boolean;
  /** The type that code states of its answer, nearest to where the server is asked; only where sheets were read with types. */
  answers?: StatedType;
}

/** A type as it is written in a module. */
export interface StatedType {
  path: string;
  written: string;
}

/** What is known of the app's modules where calls for data are followed. */
export interface AskingModules {
  /** The app's own modules: whoever listens to a message is looked for among them. */
  paths: () => Iterable<string>;
  sheetAt: (path: string) => AskSheet | null;
  /** The module of the app that an import of a module leads to; null for a package, or nothing. */
  moduleOf: (from: string, specifier: string, name: string) => string | null;
  /** Whether what a module draws shows before the effects of its components run. */
  paintsFirst: (path: string) => boolean;
}

/** How many functions are gone through from where a call begins. */
const DEEPEST = 8;
const MOST = 40;
const MOST_STEPS = 2000;

/** Of two ways in which a call begins the earlier one counts. */
const ORDER: readonly CallBeginning[] = ['evaluated', 'drawn', 'shown'];

interface Followed {
  address: Address;
  onAct: boolean;
  anyAddress: boolean;
  /** Something on the way holds its component up until the answer is there. */
  held: boolean;
  /** Something on the way hands it to a store. */
  sent: boolean;
  /** The name of the query of GraphQL that is sent there. */
  operation?: string;
  /** Lines of the module where it begins that it goes through. */
  lines: number[];
  answers?: StatedType;
}

/** Functions that run when their module's component is drawn: components by their names, and what frameworks call as they draw. */
const DRAWN =
  /^(default|[A-Z]\w*)$|^(load|loader|clientLoader|setup)$|\.(setup|data|created|beforeMount|mounted|asyncData|fetch|constructor|ngOnInit|ngAfterViewInit|connectedCallback|firstUpdated|componentDidMount|willUpdate)$/;

/** Those of them that routers call, and wait for, before they draw a page. */
const OF_ROUTER = /^(load|loader|clientLoader)$|\.(asyncData|fetch)$/;

/** Files whose script runs each time that their component is drawn. */
const RUNS_AS_DRAWN = /\.(vue|svelte)$/;

/** What asks a server by itself of packages, by the usual names of their functions. */
const OF_PACKAGE = /(^|\.)(get|post|json|fetch|request|query|graphql|ofetch|axios|ky|useSWR|useFetch)$/i;

/** What of a client gives one that is told more, which is called as that is: `ofetch.create({ baseURL })`. */
const MAKES_CLIENT = /^(create|extend|instance|withOptions|defaults)$/;
/** What makes a function that asks, by its name: `createFetch({ baseUrl })`. */
const MAKES_FETCH = /^create(Use)?(Fetch|Fetcher|Client|Api|Http)$/i;

/** The top-level name that a function stands under: that of its class or object, where it has one. */
export const topNameOf = (name: string): string => name.split('.')[0];

/** The component that a function belongs to; of those that frameworks call by their own names there is none. */
const componentOf = (name: string): string => (/^(default|[A-Z])/.test(name) ? topNameOf(name) : '');

/** Follows calls for data through hooks, clients and services to what asks a server. */
export class DataCalls {
  private readonly known = new Map<string, FoundCall[]>();
  /** Taken for one call so far: code may lead from everywhere to everywhere. */
  private steps = 0;

  private readonly listeners: Listeners;
  /** Where the app sends queries of GraphQL; null until somebody asked. */
  private queriesAt: string | null = null;
  /** What packages put before each address, by their specifiers; null until somebody asked. */
  private bases: Map<string, Address> | null = null;

  constructor(private readonly modules: AskingModules) {
    this.listeners = new Listeners({
      paths: modules.paths,
      sheetAt: modules.sheetAt,
      textOf: (path, address) => {
        const sheet = modules.sheetAt(path);
        const pieces = sheet ? this.settled(path, sheet, address) : address;
        return pieces.length > 0 && pieces.every((p) => 'text' in p) ? pieces.map(textOf).join('') : null;
      },
      homeOf: (path, name) => this.homeOf(path, name),
    });
  }

  /** The calls that a module makes as it runs and draws, and those that it makes when somebody acts, each address once. */
  of(path: string): FoundCall[] {
    const known = this.known.get(path);
    if (known) return known;
    const sheet = this.modules.sheetAt(path);
    const found: FoundCall[] = [];
    this.known.set(path, found);
    if (!sheet) return found;
    const drawn = [...sheet.functions].filter(([name, f]) => f.isTop && DRAWN.test(name));
    const asks = [
      ...sheet.top.flatMap((ask) => (ask.made && !RUNS_AS_DRAWN.test(path) ? [] : [{ ask, name: '' }])),
      ...drawn.flatMap(([name, f]) => f.asks.map((ask) => ({ ask, name }))),
    ];
    for (const { ask, name } of asks) this.addAll(path, sheet, ask, name, found);
    return found;
  }

  /** The calls of a function of a module that a router calls, and waits for, before it draws. */
  ofLoader(path: string, name: string): FoundCall[] {
    const key = `${path} ${name}`;
    const known = this.known.get(key);
    if (known) return known;
    const found: FoundCall[] = [];
    this.known.set(key, found);
    const sheet = this.modules.sheetAt(path);
    const asks = sheet?.functions.get(name)?.asks ?? [];
    if (sheet) for (const ask of asks) this.addAll(path, sheet, ask, 'loader', found);
    return found;
  }

  /** Adds where a call that stands under a name of a module leads; what is known of an address already only gets more. */
  private addAll(path: string, sheet: AskSheet, ask: Ask, name: string, found: FoundCall[]): void {
    this.steps = 0;
    const ofRouter = OF_ROUTER.test(name);
    const runs = name === '' && !RUNS_AS_DRAWN.test(path);
    const component = componentOf(name);
    const under = component === '' ? [] : [component];
    for (const followed of this.follow(path, sheet, ask)) {
      const { onAct, sent, lines, answers } = followed;
      const begins: CallBeginning = ofRouter || runs ? 'evaluated' : this.isEffect(path, followed) ? 'shown' : 'drawn';
      const holds = followed.held && !sheet.hasPlaceholder;
      const address = this.addressOf(path, sheet, followed);
      if (address === null || found.length >= MOST) continue;
      const other = found.find((f) => f.address === address);
      if (!other) {
        const how = { begins, ofRouter, holds, ...answered(answers) };
        found.push({ address, line: ask.line, onAct, under, lines, sent, ...how });
        continue;
      }
      other.answers ??= answers;
      other.onAct &&= onAct;
      other.under = component === '' || other.under.length === 0 ? [] : [...new Set([...other.under, component])];
      other.lines = [...new Set([...other.lines, ...lines])];
      if (ORDER.indexOf(begins) < ORDER.indexOf(other.begins)) other.begins = begins;
      other.sent ||= sent;
      other.ofRouter ||= ofRouter;
      other.holds ||= holds;
    }
  }

  /** The addresses to which calls on these lines of a module lead, whoever makes them. */
  answersAt(path: string, lines: readonly number[]): string[] {
    const sheet = lines.length > 0 ? this.modules.sheetAt(path) : null;
    if (!sheet) return [];
    const asks = [...sheet.top, ...[...sheet.functions.values()].flatMap((f) => f.asks)];
    const found = asks.flatMap((ask) => {
      this.steps = 0;
      if (!lines.includes(ask.line)) return [];
      return this.follow(path, sheet, ask).map((f) => this.addressOf(path, sheet, f) ?? '');
    });
    return [...new Set(found)].filter((address) => address !== '');
  }

  /** Whether components make a call in an effect that runs once they show; what holds a component up is called while it is drawn. */
  private isEffect(path: string, { held }: Followed): boolean {
    return this.modules.paintsFirst(path) && !held;
  }

  /** Where a call leads: addresses in terms of the function in which it stands. */
  private follow(path: string, sheet: AskSheet, ask: Ask, through: ReadonlySet<string> = new Set()): Followed[] {
    if (through.size === DEEPEST || this.steps++ > MOST_STEPS) return [];
    const { callee, args, onAct } = ask;
    if (ask.message) return this.toListeners(path, ask, ask.message, through);
    const aim = this.aim(path, sheet, callee);
    if (aim.kind === 'function') return this.into(path, ask, aim, through);
    const query = this.queryOf(path, sheet, ask);
    if (query) return [query];
    // What a package makes of the name of a message sends that.
    if (aim.kind === 'nothing')
      return this.listeners.isEmpty ? [] : this.toListeners(path, ask, [{ constant: callee }], through);
    if (ask.hands && !aim.anyAddress) return [];
    const asked = /(^|\.)open$/.test(callee) ? args[1] : args.find((a) => a.length > 0);
    if (!asked) return [];
    const address = behind(aim.base, asked);
    const isAny = aim.anyAddress || aim.base.length > 0;
    const held = ask.held === true;
    const sent = ask.sent === true;
    return [{ address, onAct, anyAddress: isAny, held, sent, lines: [ask.line], ...answered(statedBy(path, ask)) }];
  }

  /** What a function that a call leads to asks for. */
  private into(path: string, ask: Ask, to: { path: string; name: string }, through: ReadonlySet<string>): Followed[] {
    const inner = this.modules.sheetAt(to.path);
    const fn = inner?.functions.get(to.name);
    const key = `${to.path} ${to.name}`;
    if (!inner || !fn || through.has(key)) return [];
    const further = new Set([...through, key]);
    return fn.asks.slice(0, MOST).flatMap((next) => {
      return this.follow(to.path, inner, next, further).map((found) => ({
        address: filledIn(this.settled(to.path, inner, found.address), ask.args, fn.parameters),
        onAct: ask.onAct || found.onAct,
        anyAddress: found.anyAddress,
        held: ask.held === true || found.held,
        sent: ask.sent === true || ask.message !== undefined || found.sent,
        ...(found.operation === undefined ? {} : { operation: found.operation }),
        // Lines of other modules say nothing here.
        lines: [ask.line, ...(to.path === path ? found.lines : [])],
        // What is stated nearer to the server is nearer to what it answers.
        ...answered(found.answers ?? statedBy(path, ask)),
      }));
    });
  }

  /** What those ask for who listen to a message. */
  private toListeners(path: string, ask: Ask, message: Address, through: ReadonlySet<string>): Followed[] {
    return this.listeners.of(path, message).flatMap(({ path: there, callee }) => {
      const sheet = this.modules.sheetAt(there);
      const aim = sheet ? this.aim(there, sheet, callee) : NOTHING;
      return aim.kind === 'function' ? this.into(path, ask, aim, through) : [];
    });
  }

  /** A query of GraphQL that a package is handed by its document. */
  private queryOf(path: string, sheet: AskSheet, ask: Ask): Followed | null {
    const { callee, args, onAct, held, line } = ask;
    const nameIn = (given: Address) => {
      const [piece, ...more] = this.settled(path, sheet, given);
      return piece && more.length === 0 && 'text' in piece ? queryName(piece.text) : null;
    };
    const names = args.map(nameIn).filter((name) => name !== null);
    // What is handed over by name is called by whoever takes it, but a document is no function.
    if (names.length === 0 || nameIn([{ constant: callee }]) !== null) return null;
    return {
      ...{ address: [{ text: this.endpoint() }], anyAddress: true, operation: names[0] },
      ...{ onAct: onAct || /(Lazy|Loadable)/.test(callee), held: held === true, sent: false, lines: [line] },
      ...answered(statedBy(path, ask)),
    };
  }

  /** Where queries of GraphQL are sent: where the app's client is told to, else where most servers answer them. */
  private endpoint(): string {
    if (this.queriesAt !== null) return this.queriesAt;
    for (const path of this.modules.paths()) {
      const sheet = this.modules.sheetAt(path);
      const told = sheet?.endpoint && this.written(path, sheet, sheet.endpoint, true);
      if (told) {
        this.queriesAt = told;
        return told;
      }
    }
    this.queriesAt = '/graphql';
    return this.queriesAt;
  }

  /** The module and name where what a dotted name of a module stands for is kept. */
  private homeOf(path: string, name: string): { path: string; name: string } {
    const [first, ...rest] = name.split('.');
    const imported = this.modules.sheetAt(path)?.imports.get(first);
    const to = imported && this.modules.moduleOf(path, imported.specifier, imported.name);
    if (!imported || !to) return { path, name };
    return { path: to, name: [...(imported.name === '*' ? [] : [imported.name]), ...rest].join('.') };
  }

  /** What a dotted name means in a module: what asks a server by itself, or a function of the app. */
  private aim(path: string, sheet: AskSheet, callee: string, depth = DEEPEST): Aim {
    if (depth === 0) return NOTHING;
    if (sheet.functions.has(callee)) return { kind: 'function', path, name: callee };
    // What a component is handed as a property is known by its name, where the module hands it something of that name.
    const property = propertyOf(callee);
    if (property !== undefined) return this.aim(path, sheet, property, depth - 1);
    const [first, ...rest] = callee.replace(/^new /, '').split('.');
    for (let length = rest.length + 1; length > 0; length--) {
      const head = [first, ...rest].slice(0, length).join('.');
      const stood = sheet.stands.get(head);
      if (stood === undefined || stood === head) continue;
      const tail = [first, ...rest].slice(length);
      const base = sheet.constants.get(`${head}.`) ?? [];
      const aim = this.through(path, sheet, stood, tail, depth);
      return aim.kind === 'asks' ? { ...aim, base: [...base, ...aim.base] } : aim;
    }
    const imported = sheet.imports.get(first);
    if (!imported) return asksByItself(callee) ? { kind: 'asks', base: [], anyAddress: true } : NOTHING;
    const to = this.modules.moduleOf(path, imported.specifier, imported.name);
    if (to === null)
      return isOfPackage(imported.specifier) && OF_PACKAGE.test(callee)
        ? { kind: 'asks', base: this.baseOf(imported.specifier), anyAddress: false }
        : NOTHING;
    const target = this.modules.sheetAt(to);
    if (!target) return NOTHING;
    const name = [...(imported.name === '*' ? [] : [imported.name]), ...rest].join('.');
    return this.aim(to, target, name, depth - 1);
  }

  /** What a package was told to put before each address, by any module of the app. */
  private baseOf(specifier: string): Address {
    if (!this.bases) {
      this.bases = new Map();
      for (const path of this.modules.paths()) {
        const sheet = this.modules.sheetAt(path);
        for (const [name, base] of sheet?.bases ?? []) {
          const from = sheet!.imports.get(name);
          if (from) this.bases.set(from.specifier, this.settled(path, sheet!, base));
        }
      }
    }
    return this.bases.get(specifier) ?? [];
  }

  /** `stood` gives an object, and the rest of a name is what of it is called: a function of the module that makes it. */
  private through(path: string, sheet: AskSheet, stood: string, tail: string[], depth: number): Aim {
    const whole = this.aim(path, sheet, [stood, ...tail].join('.'), depth - 1);
    if (whole.kind !== 'nothing') return whole;
    const last = tail.at(-1) ?? stood.split('.').at(-1)!;
    const maker = this.aim(path, sheet, tail.length > 0 ? stood : stood.split('.').slice(0, -1).join('.'), depth - 1);
    if (maker.kind === 'asks' && (OF_PACKAGE.test(last) || (tail.length === 0 && MAKES_CLIENT.test(last))))
      return maker;
    if (maker.kind !== 'function') {
      // A client of a package: `axios.create()` gives what asks as the package itself does.
      const imported = sheet.imports.get(stood.split('.')[0]);
      const isClient =
        imported &&
        isOfPackage(imported.specifier) &&
        this.modules.moduleOf(path, imported.specifier, imported.name) === null;
      // What a package made of functions of the module holds them under their names: a store.
      if (isClient && tail.length > 0 && sheet.functions.has(last)) return { kind: 'function', path, name: last };
      const asks = OF_PACKAGE.test(last) || (tail.length === 0 && MAKES_FETCH.test(last));
      return isClient && asks ? { kind: 'asks', base: [], anyAddress: false } : NOTHING;
    }
    const made = this.modules.sheetAt(maker.path);
    return made?.functions.has(last) ? { kind: 'function', path: maker.path, name: last } : NOTHING;
  }

  /** An address with the constants of its module filled in, those of other modules too. */
  private settled(path: string, sheet: AskSheet, address: Address, depth = DEEPEST): Address {
    return address.flatMap((piece): Address => {
      if (!('constant' in piece) || depth === 0) return [piece];
      const own = sheet.constants.get(piece.constant);
      if (own && !(piece.or && isEmpty(own))) return this.settled(path, sheet, own, depth - 1);
      const home = this.homeOf(path, piece.constant);
      const target = home.path === path ? null : this.modules.sheetAt(home.path);
      const there = target?.constants.get(home.name);
      if (there) return this.settled(home.path, target!, there, depth - 1);
      if (piece.or) return this.settled(path, sheet, piece.or, depth - 1);
      return [{ gap: piece.constant.split('.').at(-1)! }];
    });
  }

  /** The address of a call, with the name of the query that it sends; null where nothing of it is known. */
  private addressOf(path: string, sheet: AskSheet, { address, anyAddress, operation }: Followed): string | null {
    const written = this.written(path, sheet, address, anyAddress);
    return written === null ? null : withOperation(written, operation ?? null);
  }

  /** The address as written in a pattern, variables by their names; null where nothing of it is known. */
  private written(path: string, sheet: AskSheet, address: Address, anyAddress: boolean): string | null {
    const pieces = this.settled(path, sheet, address);
    const from = pieces.findIndex((p) => 'text' in p);
    if (from < 0) return null;
    const first = pieces[from];
    if (!anyAddress && 'text' in first && !/^(\/|https?:)/.test(first.text)) return null;
    // What stands before the first text is the address of a server, which only the running app knows.
    const known = pieces.slice(from).map(textOf).join('');
    const bareOfQuery = known.replace(/[?#].*$/, '').replace(/([^:/])\/{2,}/g, '$1/');
    if (/^https?:\/\/./.test(bareOfQuery)) return bareOfQuery;
    const whole = bareOfQuery.startsWith('/') ? bareOfQuery : bareOfQuery.replace(/^(\.\.?\/)*/, '/');
    return /^\/[\w:@.~%/-]+$/.test(whole) && /[A-Za-z]/.test(whole) ? whole : null;
  }
}

const isEmpty = (address: Address) => address.every((piece) => 'text' in piece && piece.text === '');

const answered = (answers: StatedType | undefined) => (answers ? { answers } : {});

const statedBy = (path: string, { answers }: Ask): StatedType | undefined =>
  answers === undefined ? undefined : { path, written: answers };

/** `anyAddress`: whatever it is called with is an address; else only what looks like one. */
type Aim =
  | { kind: 'asks'; base: Address; anyAddress: boolean }
  | { kind: 'function'; path: string; name: string }
  | { kind: 'nothing' };
const NOTHING: Aim = { kind: 'nothing' };

function isOfPackage(specifier: string): boolean {
  return !/^[./]/.test(specifier);
}

/** An address behind the base of a client, which puts one slash between them and leaves whole addresses as they are. */
function behind(base: Address, asked: Address): Address {
  const [first] = asked;
  const isWhole = first !== undefined && 'text' in first && /^https?:/.test(first.text);
  if (base.length === 0 || isWhole) return asked;
  const isKnown = [...base, ...asked].some((piece) => 'text' in piece);
  return [...base, ...(isKnown ? [{ text: '/' }] : []), ...asked];
}

/** An address with a call's arguments in the places of parameters, and the names of these where they say nothing. */
function filledIn(address: Address, args: readonly Address[], names: readonly string[]): Address {
  return address.flatMap((piece): Address => {
    if (!('parameter' in piece)) return [piece];
    const given = args[piece.parameter] ?? [];
    return given.length > 0 ? given : [{ gap: names[piece.parameter] || 'value' }];
  });
}

function textOf(piece: AddressPiece): string {
  if ('text' in piece) return piece.text;
  return `:${'gap' in piece ? piece.gap : 'constant' in piece ? piece.constant.split('.').at(-1) : 'value'}`;
}
