import fs from 'node:fs';
import { partInWords, styleNames, styleSample } from '../src/test-support/styles.mjs';

/** Prints how the samples of styles are read: routes, deferred imports and parts found of those expected, and what is told. Build first: npm run build:node. */
const { readSource } = await import('../dist/reader/read-source.js');
const key = ({ pattern, layouts, page }) => [pattern, ...layouts, page].join(' ');
const rows = styleNames().map((name) => {
  const { folder, expected } = styleSample(name);
  const { snapshot } = readSource(folder);
  fs.rmSync(folder, { recursive: true });
  const found = new Set(snapshot.routes.map(key));
  const deferred = new Set(
    snapshot.imports.filter((i) => i.kind === 'dynamic').map((i) => snapshot.modules[i.to].path),
  );
  const inWords = (route, part) => `${route} ${part}`;
  const wanted = Object.entries(expected.parts ?? {}).flatMap(([route, all]) => all.map((p) => inWords(route, p)));
  const parts = snapshot.routes.flatMap((r) => r.parts.map((p) => inWords(r.pattern, partInWords(p))));
  const of = (right, all, there) => `${right} of ${all}${there > right ? `, ${there - right} more` : ''}`;
  return {
    style: name,
    routes: of(expected.routes.filter((r) => found.has(key(r))).length, expected.routes.length, found.size),
    deferred: of(expected.deferred.filter((d) => deferred.has(d)).length, expected.deferred.length, deferred.size),
    parts: expected.parts ? of(parts.filter((p) => wanted.includes(p)).length, wanted.length, parts.length) : '',
    modules: snapshot.modules.length,
    told: snapshot.failed.length + snapshot.unresolved.filter((u) => !u.leftOut).length,
  };
});
console.table(rows);
