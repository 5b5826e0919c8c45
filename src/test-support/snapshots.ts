import fc from 'fast-check';
import { NOTHING_MORE } from '../core/snapshot/complete.ts';
import type { Import, Module } from '../core/snapshot/module-types.ts';
import type { Part, Route } from '../core/snapshot/route-types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';

/** A module of a test snapshot: its size, and what it imports (`~name` is deferred, `~~name` waited for). */
export interface Sketch {
  bytes?: number;
  imports?: string[];
  kind?: Module['kind'];
  package?: string;
  context?: Import['context'];
}

/** Builds a snapshot from a sketch; module names are paths. */
export function sketch(modules: Record<string, Sketch>, more: Partial<Snapshot> = {}): Snapshot {
  const paths = Object.keys(modules);
  const at = new Map(paths.map((p, i) => [p, i]));
  const imports: Import[] = [];
  paths.forEach((path, from) => {
    const seen = new Map<string, number>();
    (modules[path].imports ?? []).forEach((wish, n) => {
      const dynamic = wish.startsWith('~');
      const specifier = wish.replace(/^~+/, '');
      const ordinal = seen.get(specifier) ?? 0;
      seen.set(specifier, ordinal + 1);
      imports.push({
        from,
        to: at.get(specifier)!,
        kind: dynamic ? 'dynamic' : 'static',
        specifier,
        ordinal,
        line: n + 1,
        column: 1,
        start: n * 30,
        end: n * 30 + 28,
        names: ['*'],
        ...(dynamic ? { context: modules[path].context ?? 'wrapper' } : {}),
        ...(wish.startsWith('~~') ? { awaited: true } : {}),
      });
    });
  });
  return {
    name: 'sketch',
    origin: 'source',
    modules: paths.map((path) => {
      const bytes = modules[path].bytes ?? 1000;
      const small = Math.round(bytes / 3);
      return {
        path,
        kind: modules[path].kind ?? 'script',
        package: modules[path].package ?? null,
        bytes: { source: bytes * 2, minified: bytes, gzip: small + 20, brotli: small, marginal: small },
        sideEffects: true,
      };
    }),
    imports,
    packages: [],
    entries: [{ realm: 'site', kind: 'document', document: 'index.html', modules: [paths[0]] }],
    routes: [],
    scripts: [],
    unresolved: [],
    failed: [],
    ...NOTHING_MORE,
    ...more,
  };
}

export function route(pattern: string, page: string, more: Partial<Route> = {}): Route {
  return {
    pattern,
    realm: 'site',
    layouts: [],
    page,
    evidence: null,
    rendering: 'client',
    document: { bytes: 4000, serverMs: 50 },
    content: [],
    data: [],
    parts: [],
    links: [],
    ...more,
  };
}

export function part(id: string, module: string, more: Partial<Part> = {}): Part {
  return { id, name: id, module, place: 'first screen', interactive: true, share: 1, needs: [], ...more };
}

/** Random apps: an import graph with cycles and deferred imports, and routes whose pages and layouts are anywhere in it. */
export function anyApp(most = 24): fc.Arbitrary<Snapshot> {
  return fc.integer({ min: 2, max: most }).chain((count) => {
    const module = fc.integer({ min: 0, max: count - 1 });
    const edge = fc.tuple(module, module, fc.boolean());
    const chain = fc.record({ page: module, layouts: fc.uniqueArray(module, { maxLength: 2 }) });
    return fc
      .record({
        edges: fc.array(edge, { maxLength: count * 3 }),
        sizes: fc.array(fc.integer({ min: 1, max: 5000 }), { minLength: count, maxLength: count }),
        styles: fc.array(fc.boolean(), { minLength: count, maxLength: count }),
        chains: fc.array(chain, { minLength: 1, maxLength: 4 }),
      })
      .map(({ edges, sizes, styles, chains }) => {
        const name = (m: number) => `m${String(m).padStart(2, '0')}`;
        const modules: Record<string, Sketch> = {};
        for (let m = 0; m < count; m++) {
          const imports = edges
            .filter(([from]) => from === m)
            .map(([, to, deferred]) => `${deferred ? '~' : ''}${name(to)}`);
          modules[name(m)] = { bytes: sizes[m], imports, kind: m > 0 && styles[m] && m % 5 === 0 ? 'style' : 'script' };
        }
        const routes = chains.map((c, i) =>
          route(`/r${i}`, name(c.page), { layouts: c.layouts.filter((l) => l !== c.page).map(name) }),
        );
        return sketch(modules, { routes });
      });
  });
}
