/**
 * A piece of an address: written, a parameter of the function around it, a constant of the module (`or`: what is taken where that says nothing), or what only
 * running code knows.
 */
export type AddressPiece =
  | { text: string }
  | { parameter: number }
  | { constant: string; or?: Address }
  | { gap: string };

/** An address as far as code tells it; empty where it says nothing of it. */
export type Address = readonly AddressPiece[];

/** A call that may ask a server, or lead to one that does. */
export interface Ask {
  /** What is called, as a dotted name: `fetch`, `api.get`, `TideService.load`; empty where a message is sent. */
  callee: string;
  /** The name of the message that is sent in place of a call. */
  message?: Address;
  /** Addresses that its arguments may be, in their places. */
  args: Address[];
  line: number;
  /** Made when a person acts, and not while the module or function runs. */
  onAct: boolean;
  /** It holds its component up until the answer is there, or is called by what does. */
  held?: true;
  /** What it gives is handed to a store. */
  sent?: true;
  /** It is handed functions that may do the asking in its place. */
  hands?: true;
  /** What it is handed to is kept at the top of the module: only where that runs as a component's setup is it made there. */
  made?: true;
  /** The type that is stated of what it gives once it has come, as written; only where the sheet was read with types. */
  answers?: string;
}

/** Where a call is made. */
export interface Place {
  /** Those of the function with a name around it, or of the module as it runs. */
  asks: Ask[];
  parameters: readonly string[];
  /** It is made when somebody acts. */
  onAct: boolean;
}

/** A function that may ask a server. */
export interface AskingFunction {
  parameters: string[];
  /** It stands at the top of its module, and not inside of another function. */
  isTop: boolean;
  asks: Ask[];
}

/** A function of a module that is called when a message comes. */
export interface Listening {
  message: Address;
  callee: string;
}

/** A description of a store whose functions are called by messages with their names, or of a module of one. */
export interface StoreModule {
  /** Under which it is kept in its script. */
  name: string;
  /** A store is made of it. */
  isRoot: boolean;
  /** The names of its functions begin with its own. */
  isNamespaced: boolean;
  /** The name under which its functions are kept. */
  actions: string | null;
  modules: { key: string; name: string }[];
}

/** What a module says about calls for data. */
export interface AskSheet {
  /** By name: `load`, `default`, of objects and classes `api.tides`, `TideService.load`. */
  functions: Map<string, AskingFunction>;
  /** It has a placeholder of its own for what is held up in some of what it draws. */
  hasPlaceholder: boolean;
  /** What runs as the module does. */
  top: Ask[];
  /** Addresses that stand under a name of the module: `BASE`, `PATHS.tides`. */
  constants: Map<string, Address>;
  /** Names that stand for what another name gives: an instance for its class, `const { load } = useTides()` for `useTides`. */
  stands: Map<string, string>;
  /** Names at the top of the module under which something is kept, with the lines of the calls that it comes from. */
  kept: Map<string, number[]>;
  /** Contexts that it makes, and functions that give what such a one holds: what its providers load, as far as they stand in it. */
  contexts: Set<string>;
  listens: Listening[];
  stores: StoreModule[];
  /** What imported names are told to put before each address that they ask for: `axios.defaults.baseURL = '/api'`. */
  bases: Map<string, Address>;
  /** Where a client of GraphQL sends its queries. */
  endpoint?: Address;
  /** local name → specifier and name there (`*` for all). */
  imports: Map<string, { specifier: string; name: string }>;
}
