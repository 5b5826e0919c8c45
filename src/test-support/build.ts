import { planned } from '../core/chunks/planned.ts';
import { BASELINE } from '../core/plan/types.ts';
import type { Reading } from '../reader/read-source.ts';
import { builtFile, outputOf } from './output.ts';

/** What a production build could make of an app that was read: one file with a map for each chunk, and a document. */
export function buildOf({ snapshot, sources, texts }: Reading, head = ''): Record<string, string> {
  const graph = planned(snapshot, BASELINE).graph;
  const nameOf = (chunk: number) =>
    `assets/${graph.chunks[chunk].name.replace(/\W+/g, '-')}-${chunk}.${graph.chunks[chunk].kind === 'style' ? 'css' : 'js'}`;
  const chunkOf = new Map<number, number>();
  graph.chunks.forEach((c, at) => {
    for (const m of c.modules) chunkOf.set(m, at);
  });
  const files = graph.chunks.map((c, at) => {
    const asked = snapshot.imports.filter(
      (i) => chunkOf.get(i.from) === at && graph.chunks[chunkOf.get(i.to)!].kind === 'script',
    );
    const others = (kind: string) => [
      ...new Set(
        asked
          .filter((i) => i.kind === kind && chunkOf.get(i.to) !== at)
          .map((i) => nameOf(chunkOf.get(i.to)!).slice('assets'.length)),
      ),
    ];
    const imports = others('static')
      .map((n) => `import".${n}";`)
      .join('');
    const deferred = others('dynamic')
      .map((n) => `globalThis.later=()=>import(".${n}");`)
      .join('');
    const pieces = c.modules.map((m, n) => {
      const { path } = snapshot.modules[m];
      const own = c.kind === 'style' ? texts[path] : JSON.stringify(texts[path]);
      return {
        source: `../${path}`,
        out: c.kind === 'style' ? own : `${n === 0 ? imports + deferred : ''}globalThis.made=${own};`,
        content: sources[path] ?? texts[path],
      };
    });
    return [nameOf(at), builtFile(pieces)] as const;
  });
  const entry = graph.roots.find((r) => r.kind === 'entry')!;
  const tags = entry.group.map((c) =>
    graph.chunks[c].kind === 'style'
      ? `<link rel="stylesheet" href="/${nameOf(c)}">`
      : `<script type="module" src="/${nameOf(c)}"></script>`,
  );
  return {
    'index.html': `<!doctype html><head>${head}${tags.join('')}</head><div id="root"></div>`,
    ...outputOf(Object.fromEntries(files)),
  };
}
