import fs from 'node:fs';
import path from 'node:path';
import { ResolverFactory } from 'oxc-resolver';
import { withoutQuery } from '../core/text/address.ts';

/** Where a specifier leads, or why nowhere; `leftOut`: it isn't followed on purpose. */
export type Resolution = { path: string } | { reason: string; leftOut: boolean };

/** Whether an address is on the network rather than in the folder. */
export function onNetwork(address: string): boolean {
  return /^([a-z][a-z0-9+.-]*:)?\/\//i.test(address);
}

/** Why something isn't read that is there: the folder around the app may be read only when a person says so. */
export const OUTSIDE = 'it lies outside the folder that was read';

/** How something is asked for: by an import of a script, by `require`, or by a sheet. */
export type Asking = 'script' | 'required' | 'style';

const EXTENSIONS = ['.tsx', '.ts', '.jsx', '.js', '.mts', '.mjs', '.cjs', '.json', '.vue', '.svelte', '.css'];

export interface ResolverOptions {
  root: string;
  /** The folder around the app whose files may be read too; the app's own where that is all. */
  bounds?: string;
  /** The documents' import map. */
  importMap?: ReadonlyMap<string, string>;
  /** Names that stand for folders of the app, relative to it. */
  aliases?: ReadonlyMap<string, string>;
  /** Specifiers that the framework's build fills in. */
  filledIn?: readonly RegExp[];
  /** Component systems for whose builds packages have components as written, by the field and the condition of that name. */
  systems?: readonly string[];
}

/** Folders that `@/` and `~/` stand for by habit, where no configuration says so. */
const HABITS = ['src', 'app', '.'];

/** Resolves specifiers by the platform's rules, and never out of the folder that is read. */
export class Resolver {
  private readonly resolvers: Record<Asking, ResolverFactory>;

  /** Folders of files that were found and lie outside of what may be read. */
  readonly outside = new Set<string>();
  /** Folders in which files were found, and whether they lie in what may be read. */
  private readonly looked = new Map<string, boolean>();
  /** What was resolved already: files of one folder ask for much the same. */
  private readonly resolved = new Map<string, Resolution>();
  private readonly root: string;
  private readonly bounds: string;
  private readonly imports: ReadonlyMap<string, string>;
  private readonly filledIn: readonly RegExp[];
  /** Aliases with the longest names first. */
  private readonly aliases: readonly [name: string, folder: string][];

  constructor(options: ResolverOptions) {
    const { root, bounds = root, importMap = new Map(), aliases = new Map(), filledIn = [], systems = [] } = options;
    this.root = root;
    this.bounds = bounds;
    this.imports = importMap;
    this.filledIn = filledIn;
    this.aliases = [...aliases].sort(([a], [b]) => b.length - a.length);
    const config = path.join(root, 'tsconfig.json');
    const common = {
      extensions: EXTENSIONS,
      extensionAlias: { '.js': ['.ts', '.tsx', '.js'], '.jsx': ['.tsx', '.jsx'], '.mjs': ['.mts', '.mjs'] },
      mainFields: [...systems, 'browser', 'module', 'main'],
      aliasFields: [['browser']],
      builtinModules: true,
      ...(configUsable(config) ? { tsconfig: { configFile: config, references: 'auto' as const } } : {}),
    };
    const asScript = (way: 'import' | 'require') =>
      new ResolverFactory({
        ...common,
        conditionNames: [...systems, 'browser', way, 'module', 'production', 'default'],
      });
    const style = {
      conditionNames: ['style', 'browser', 'default'],
      extensions: ['.css'],
      mainFields: ['style', 'main'],
    };
    this.resolvers = {
      script: asScript('import'),
      // A package may give those that require it another file.
      required: asScript('require'),
      style: new ResolverFactory({ ...common, ...style }),
    };
  }

  /** Resolves a specifier as written in a file (absolute path). */
  resolve(from: string, specifier: string, kind: Asking): Resolution {
    const folder = path.dirname(from);
    const key = `${kind}\0${specifier}\0${folder}`;
    const known = this.resolved.get(key);
    if (known !== undefined) return known;
    const found = this.resolveFrom(folder, specifier, kind);
    this.resolved.set(key, found);
    return found;
  }

  private resolveFrom(folder: string, specifier: string, kind: Asking): Resolution {
    const mapped = kind === 'style' ? null : this.mapped(specifier);
    if (mapped !== null && onNetwork(mapped)) return leftOut(`the import map sends it to ${mapped}`);
    if (onNetwork(specifier)) return leftOut('an address on the network is not followed');
    const plain = plainOf(mapped ?? specifier);
    if (this.filledIn.some((f) => f.test(plain))) return leftOut('the framework’s build fills it in');
    if (plain === '') return lost('the specifier is empty');
    const found = this.lookUp(mapped === null ? folder : this.root, plain, kind);
    if (found.builtin) return leftOut('a module of the server platform, which a browser doesn’t have');
    if (!found.path) {
      const elsewhere = this.byAlias(plain, kind) ?? this.broughtAlong(folder, plain, kind);
      if (elsewhere) return { path: elsewhere };
    }
    // `"browser": { "name": false }` in its description.
    if (!found.path && found.error?.startsWith('Path is ignored'))
      return leftOut('its package leaves it out in browsers');
    if (!found.path) return lost(tidy(found.error ?? 'not found', this.root));
    if (this.inside(found.path)) return { path: found.path };
    this.outside.add(path.dirname(found.path));
    return lost(OUTSIDE);
  }

  /** What the import map makes of a specifier: the longest name that fits, as the platform does. */
  private mapped(specifier: string): string | null {
    const whole = this.imports.get(specifier);
    if (whole !== undefined) return whole;
    const prefixes = [...this.imports.keys()].filter((name) => name.endsWith('/') && specifier.startsWith(name));
    const longest = prefixes.sort((a, b) => b.length - a.length)[0];
    return longest === undefined ? null : `${this.imports.get(longest)}${specifier.slice(longest.length)}`;
  }

  /** What an alias makes of a specifier; where none is known, what `@/` and `~/` mostly stand for. */
  private byAlias(specifier: string, kind: Asking): string | undefined {
    const named = this.aliases.find(([name]) => specifier === name || specifier.startsWith(`${name}/`));
    const habit = /^[@~]\//.test(specifier) ? HABITS.map((folder): [string, string] => [specifier[0], folder]) : [];
    for (const [name, folder] of named ? [named, ...habit] : habit) {
      const found = this.lookUp(this.root, `./${path.posix.join(folder, specifier.slice(name.length))}`, kind).path;
      if (found && this.inside(found)) return found;
    }
    return undefined;
  }

  /** In styles a bare name is a file beside first, and a package second. */
  private lookUp(folder: string, specifier: string, kind: Asking) {
    const resolver = this.resolvers[kind];
    const rooted = specifier.startsWith('/') ? path.join(this.root, specifier) : specifier;
    const beside = kind === 'style' && !/^[./@]/.test(specifier) ? resolver.sync(folder, `./${specifier}`) : null;
    return beside?.path ? beside : resolver.sync(folder, rooted);
  }

  /** A package that another one brings along compiled, in a folder of its own (`dist/compiled`). */
  private broughtAlong(folder: string, specifier: string, kind: Asking): string | undefined {
    const owner = /^.*[/\\]node_modules[/\\](?:@[^/\\]+[/\\])?[^/\\]+(?=[/\\]|$)/.exec(folder)?.[0];
    if (owner === undefined || /^[./#]/.test(specifier)) return undefined;
    const inside = this.lookUp(owner, `./dist/compiled/${specifier}`, kind).path;
    return inside && this.inside(inside) ? inside : undefined;
  }

  /** Whether a file that was found lies in what may be read. Where links of files lead is known by then: of folders it is looked up. */
  private inside(file: string): boolean {
    const folder = path.dirname(file);
    const known = this.looked.get(folder);
    if (known !== undefined) return known;
    const relative = path.relative(this.bounds, fs.realpathSync.native(folder));
    const isInside = !relative.startsWith('..') && !path.isAbsolute(relative);
    this.looked.set(folder, isInside);
    return isInside;
  }
}

/** Whether a TypeScript configuration can be used: one that builds on a file that isn't there makes every resolution fail. */
function configUsable(config: string): boolean {
  if (!fs.existsSync(config)) return false;
  const probe = new ResolverFactory({ tsconfig: { configFile: config, references: 'auto' } }).sync(
    path.dirname(config),
    './',
  );
  return !/tsconfig|ailed to parse/i.test(probe.error ?? '');
}

function leftOut(reason: string): Resolution {
  return { reason, leftOut: true };
}

function lost(reason: string): Resolution {
  return { reason, leftOut: false };
}

/** The resolver's words without paths of this machine. */
function tidy(message: string, root: string): string {
  return message.replaceAll(`${root}${path.sep}`, '').replaceAll(root, '.');
}

/** A specifier without query and fragment; a leading # names one of the package's own imports. */
function plainOf(specifier: string): string {
  return specifier === '' ? '' : specifier[0] + withoutQuery(specifier.slice(1));
}
