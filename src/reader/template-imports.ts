import type { FoundImport } from './found-import.ts';
import { SourceText } from './source-text.ts';

/** A tag of a component: `TheHeader`, or the same written with dashes. */
const TAG = /<([A-Z][\w.]*|[a-z]+(?:-[a-z0-9]+)+)/g;

/** Components that a template uses by name; a name that begins with `Lazy` is asked for when it is drawn. */
export function componentsUsed(
  markup: string,
  components: ReadonlyMap<string, string>,
): (Omit<FoundImport, 'specifier'> & { file: string })[] {
  const source = new SourceText(markup);
  const found = new Map<string, Omit<FoundImport, 'specifier'> & { file: string }>();
  for (const match of markup.matchAll(TAG)) {
    const name = nameOfTag(match[1]);
    const later = name.startsWith('Lazy') && !components.has(name);
    const file = components.get(later ? name.slice(4) : name);
    if (file === undefined || found.has(name)) continue;
    const place = { ...source.place(match.index), start: 0, end: 0, names: ['default'], file };
    found.set(
      name,
      later ? { kind: 'dynamic', context: 'wrapper', ...place, names: ['*'] } : { kind: 'static', ...place },
    );
  }
  return [...found.values()];
}

/** Components that a template names, as in `TheHeader`. */
export function componentTags(markup: string): Set<string> {
  return new Set([...markup.matchAll(TAG)].map((match) => nameOfTag(match[1])));
}

function nameOfTag(tag: string): string {
  return tag.includes('-') ? `-${tag}`.replace(/-(\w)/g, (_, letter) => letter.toUpperCase()) : tag;
}

const DEFERRED = /\bimport\(\s*(['"])([^'"\n]{1,500})\1\s*\)/g;

/** Deferred imports that a template makes itself, as in `{#await import('./map.svelte')}`. */
export function importsInMarkup(markup: string): FoundImport[] {
  const source = new SourceText(markup);
  return [...markup.matchAll(DEFERRED)].map((match) => ({
    ...{ kind: 'dynamic', specifier: match[2], names: ['*'], context: 'wrapper', ...source.place(match.index) },
    ...{ start: match.index, end: match.index + match[0].length },
  }));
}
