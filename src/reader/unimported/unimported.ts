/** Something that scripts or templates use by its name alone: the build writes the import. */
export interface Provided {
  /** What an import of it would name: a package, or a file of the app from its folder (`/src/a.vue`). */
  from: string;
  /** Under which name that exports it. */
  name: string;
}

/** Names that the build of an app imports where they are used without an import. */
export interface Unimported {
  /** In scripts. */
  names: Record<string, Provided>;
  /** Components in templates, as in `TheHeader`. */
  components: Record<string, Provided>;
}
