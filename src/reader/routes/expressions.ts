/**
 * What a module says about routes, before names are followed into other modules. Lines are those of the file; names are
 * local ones of the module that holds the expression.
 */
export type RouteExpression =
  | { is: 'list'; items: RouteExpression[] }
  | RouteEntry
  /** Routes under a name, of this module or imported: a variable, a spread, what a function gives. */
  | { is: 'name'; name: Name; line: number }
  /** Routes of another module that is asked for deferred, by export. */
  | { is: 'module'; specifier: string; exported: string; line: number }
  /** Routes all of which begin with one path. */
  | { is: 'prefix'; path: TextExpression; inner: RouteExpression }
  | { is: 'unclear'; said: string; line: number };

export interface RouteEntry {
  is: 'route';
  path: TextExpression;
  /** What is drawn there, outermost first: the last one that is the app's own is the page. */
  views: View[];
  children: RouteExpression | null;
  /** The function that the router calls, and waits for, before it draws: by its name, or as `loaderAt` names one that is written here. */
  loads?: Name;
  /** The router draws nothing at all before what it needs is there: code that it asks for itself. */
  waits?: true;
  /** Something is drawn in its place as long as the router waits. */
  hasFallback?: true;
  /** It leads elsewhere, and draws nothing. */
  redirects: boolean;
  line: number;
}

/** A name with the keys that are taken from it, as in `paths.trips.one`. */
export interface Name {
  name: string;
  keys: string[];
}

/**
 * A route that names the one around it, or is known by an id that tells which that is (public convention of TanStack Router): `createRootRoute`, `createRoute`,
 * `createFileRoute(id)` and `createLazyFileRoute(id)`.
 */
export interface ParentedRoute {
  /** The top-level name that it stands under. */
  name: string;
  /** What it is known by, as in `/tides/$id`; null where its path and the route around it tell where it stands. */
  id: string | null;
  isRoot: boolean;
  /** The route around it. */
  parent: Name | null;
  path: TextExpression;
  views: View[];
  loads?: Name;
  /** What it draws comes in a deferred way, which the router waits for. */
  waits?: true;
  line: number;
}

/** The name of a loader that is written out where it is handed to the router, by its place in the text. */
export function loaderAt({ start }: { start: number }): string {
  return `loader@${start}`;
}

/** A text as far as the syntax tells: constant, under a name, or put together; null where it is computed. */
export type TextExpression = string | null | Name | { joined: TextExpression[] };

export type View =
  | { by: 'name'; name: Name }
  /** A deferred import, with the export that is drawn. */
  | { by: 'import'; specifier: string; exported: string }
  /** A file, named from the folder of the module. */
  | { by: 'file'; file: string }
  /** A component whose name says that it stands around others. */
  | { by: 'layout'; name: Name }
  /** An element that a script of the app defines, by its name. */
  | { by: 'element'; element: string }
  /** Markup that is written in the module itself. */
  | { by: 'here' };

/** Texts of a module by key, at any depth. */
export type Texts = { text: TextExpression } | { keys: { [key: string]: Texts } };

/** Everything that a module says about routes, and the names by which others can use it. */
export interface RouteSheet {
  /** The outermost expressions that hold routes, with the top-level name under which they stand, if any; `onlyNamed`: routes only where others use the name. */
  roots: { owner: string | null; expression: RouteExpression; onlyNamed: boolean }[];
  /** Routes that name the one around them. */
  parented: ParentedRoute[];
  texts: Map<string, Texts>;
  /** Top-level names that stand for a view of another module: wrapped and deferred components. */
  views: Map<string, View[]>;
  /** Local name → where it is imported from. */
  imported: Map<string, { specifier: string; exported: string }>;
  /** Names that are declared at the top. */
  declared: Set<string>;
  /** Exported name → local name. */
  exported: Map<string, string>;
}
