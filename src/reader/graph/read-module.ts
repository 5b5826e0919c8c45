import type { Module, ModuleKind } from '../../core/snapshot/module-types.ts';
import type { FoundImport } from '../found-import.ts';
import type { ComponentUse } from '../parts/component-uses.ts';
import type { Services } from '../parts/find-parts.ts';
import type { RouteSheet } from '../routes/expressions.ts';
import { type ParsedScript, type ScriptExports } from '../script/parsed-script.ts';
import type { SheetFonts } from '../sheets/font-faces.ts';
import type { Reexports } from './reexports.ts';

/** The script of a module as plain JavaScript. */
export interface ScriptCode {
  text: string;
  commonJs: boolean;
  /** Specifiers of its import and export statements. */
  stated: ReadonlySet<string>;
  /** The text made small, with the exports that somebody takes; null before that is known. */
  small: string | null;
}

/** A module as read, with its imports resolved to paths. */
export interface ReadModule {
  path: string;
  kind: ModuleKind;
  module: Module;
  /** What it ships as, as far as that is known before it is weighed. */
  minified: string;
  /** Its script before it is made small; null once it is, and for anything else. */
  code: ScriptCode | null;
  /** As written, of the app's own scripts. */
  source: string | null;
  imports: { found: FoundImport; to: string }[];
  /** specifier → path. */
  resolved: Map<string, string>;
  routes: RouteSheet | null;
  realm: string;
  uses: ComponentUse[];
  innerActs: ParsedScript['innerActs'];
  owners: ParsedScript['owners'];
  asks: ParsedScript['asks'];
  images: ParsedScript['images'];
  runs: ParsedScript['runs'];
  /** Specifiers of what it mounts as a whole app. */
  mounts: string[];
  /** Names of elements that stand for a component of it. */
  elements: string[];
  /** What it says of fonts, of a style sheet. */
  fonts: SheetFonts | null;
  /** What only blocks of its templates ask for that are drawn later. */
  later: ParsedScript['later'];
  serves: Services;
  exports: ScriptExports | null;
  reexports: Reexports | null;
  /** Marked as where code for the browser begins, or as functions that the browser calls on the server. */
  marked: 'client' | 'server' | null;
}

/** A module before anything of it is read. */
export function emptyModule(path: string, kind: ModuleKind, realm: string, module: Module): ReadModule {
  // Written out: there is one for each module, and putting it together from parts takes several times as long.
  return {
    path,
    kind,
    realm,
    module,
    minified: '',
    code: null,
    source: null,
    imports: [],
    resolved: new Map(),
    routes: null,
    uses: [],
    innerActs: {},
    owners: null,
    asks: null,
    images: [],
    runs: null,
    mounts: [],
    elements: [],
    fonts: null,
    later: null,
    serves: {
      media: null,
      whenSeen: false,
      onServer: false,
      hides: false,
      hasContent: false,
      failures: { catches: false, tells: false },
    },
    exports: null,
    reexports: null,
    marked: null,
  };
}
