import type { Rendering } from '../../core/snapshot/route-types.ts';
import type { HtmlDocument } from '../html-document.ts';
import type { DirectoryRoute } from '../routes/directory-routes.ts';

export interface FoundStart {
  address: string;
  line: number;
  kind: 'script' | 'style';
  /** Written in an import inside the document, so a bare name means a package. */
  imported?: boolean;
}

export interface FoundEntry {
  realm: string;
  document: string | null;
  starts: FoundStart[];
  /** What the document asks for; null for an app without one. */
  html: HtmlDocument | null;
  /** Routes that folders or files stand for. */
  routes: DirectoryRoute[];
  /** Where the routes of folders and files are drawn first. */
  rendering: Rendering;
  /**
   * What of the app's own modules is sent to the browser: all of it; only what is marked for the client with what that imports; or
   * all without certain exports of the pages.
   */
  ships: 'everything' | 'what is marked' | { without: readonly string[] };
  /** Names that stand for folders of the app, by the framework's convention. */
  aliases?: ReadonlyMap<string, string>;
  /** Specifiers that the framework's build fills in by itself. */
  filledIn?: RegExp;
  /** What the framework brings along with a component that a page of its own sends, by the component's file. */
  bringsAlong?: readonly { ends: RegExp; specifier: string }[];
  /** The package that brings a component system of its own, by which the app is drawn in place of the installed one. */
  drawnWith?: string;
  /** Files whose exports scripts and templates use by name, without an import. */
  autoImports?: readonly string[];
  /** Components that templates use without an import, by the name that their folder gives them. */
  components?: ReadonlyMap<string, string>;
}

/** What of an app's `package.json` tells how it starts. */
export interface PackageDescription {
  name?: unknown;
  main?: unknown;
  module?: unknown;
  dependencies?: unknown;
  devDependencies?: unknown;
  workspaces?: unknown;
}
