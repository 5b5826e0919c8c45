import type { ReadModule } from './graph/read-module.ts';

/** Directives that mark where code for the browser begins, and functions that it calls on the server. */
const DIRECTIVE = /^(['"])use (client|server)\1/;

/** How a script is marked at its beginning, after space and comments. One pass over the text. */
export function marked(text: string): 'client' | 'server' | null {
  let at = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  for (;;) {
    while (at < text.length && /\s/.test(text[at])) at++;
    if (text.startsWith('//', at)) {
      const end = text.indexOf('\n', at);
      if (end < 0) return null;
      at = end + 1;
    } else if (text.startsWith('/*', at)) {
      const end = text.indexOf('*/', at + 2);
      if (end < 0) return null;
      at = end + 2;
    } else return (DIRECTIVE.exec(text.slice(at, at + 12))?.[2] ?? null) as 'client' | 'server' | null;
  }
}

/**
 * Modules of a server-rendered app that reach the browser: those marked as client code and what they import, styles,
 * workers, and what the framework starts. Functions that are marked for the server are only called from there.
 */
export function shippedModules(modules: ReadonlyMap<string, ReadModule>, alsoShipped: Iterable<string>): Set<string> {
  const shipped = new Set(alsoShipped);
  for (const m of modules.values()) if (m.marked === 'client' || m.kind === 'style') shipped.add(m.path);
  for (const path of shipped)
    for (const { to } of modules.get(path)?.imports ?? []) if (modules.get(to)?.marked !== 'server') shipped.add(to);
  return shipped;
}

/** Takes away what a module that only runs on the server would weigh; its imports still show what it brings. */
export function withoutWeight(module: ReadModule): void {
  module.minified = '';
  module.code = null;
  const { source } = module.module.bytes;
  module.module.bytes = { source, minified: 0, gzip: 0, brotli: 0, marginal: 0 };
}
