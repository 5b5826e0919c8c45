import fs from 'node:fs';
import { styleNames, styleSample } from '../test-support/styles.ts';
import { readSource } from './read-source.ts';

describe.each(styleNames())('an app in the style of %s', (name) => {
  const { folder, expected } = styleSample(name);
  const { snapshot } = readSource(folder);
  afterAll(() => fs.rmSync(folder, { recursive: true }));

  it('has its routes with layouts and pages', () => {
    expect(snapshot.routes.map(({ pattern, layouts, page }) => ({ pattern, layouts, page }))).toEqual(expected.routes);
  });

  it('defers what its code defers', () => {
    const targets = snapshot.imports.filter((i) => i.kind === 'dynamic').map((i) => snapshot.modules[i.to].path);
    expect([...new Set(targets)].sort()).toEqual(expected.deferred);
  });

  it('tells what isn’t understood, and nothing else', () => {
    const told = [
      ...snapshot.failed.map((f) => `${f.path}:${f.line}: ${f.message}`),
      ...snapshot.unresolved.filter((u) => !u.leftOut).map((u) => `${u.from}:${u.line}: ${u.specifier}`),
    ];
    expect(told.map((t, i) => (expected.told[i] && t.startsWith(expected.told[i]) ? expected.told[i] : t))).toEqual(
      expected.told,
    );
  });
});
