import type { ReadModule } from './read-module.ts';

/** The directive that marks where code for the browser begins. */
const DIRECTIVE = /^(['"])use client\1/;

/** Whether a script begins, after space and comments, with the mark of code for the browser. One pass over the text. */
export function beginsClient(text: string): boolean {
  let at = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  for (;;) {
    while (at < text.length && /\s/.test(text[at])) at++;
    if (text.startsWith('//', at)) {
      const end = text.indexOf('\n', at);
      if (end < 0) return false;
      at = end + 1;
    } else if (text.startsWith('/*', at)) {
      const end = text.indexOf('*/', at + 2);
      if (end < 0) return false;
      at = end + 2;
    } else return DIRECTIVE.test(text.slice(at, at + 12));
  }
}

/**
 * Modules of a server-rendered app that reach the browser: those marked as client code and what they import, styles,
 * and workers. Where nothing is marked, everything ships.
 */
export function shippedModules(modules: ReadonlyMap<string, ReadModule>, alsoShipped: Iterable<string>): Set<string> {
  const marked = [...modules.values()].filter((m) => m.client);
  if (marked.length === 0) return new Set(modules.keys());
  const shipped = new Set([...marked.map((m) => m.path), ...alsoShipped]);
  for (const m of modules.values()) if (m.kind === 'style') shipped.add(m.path);
  for (const path of shipped) for (const { to } of modules.get(path)?.imports ?? []) shipped.add(to);
  return shipped;
}

/** Takes away what a module that only runs on the server would weigh; its imports still show what it brings. */
export function withoutWeight(module: ReadModule): void {
  module.minified = '';
  const { source } = module.module.bytes;
  module.module.bytes = { source, minified: 0, gzip: 0, brotli: 0, marginal: 0 };
}
