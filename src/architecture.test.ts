import fs from 'node:fs';
import path from 'node:path';

/** Layers from the core outward; each may use the ones named, and itself. */
const MAY_USE: Record<string, string[]> = {
  core: [],
  reader: ['core'],
  patch: ['core', 'reader'],
  store: ['core'],
  server: ['core', 'reader', 'patch', 'store'],
  worker: ['core'],
  ui: ['core', 'worker'],
  app: ['server', 'ui'],
  cli: ['core', 'reader', 'patch'],
};
/** Shapes of what the server answers, which the interface may name as types. */
const TYPES_FOR_UI = ['server', 'store', 'patch'];
const CORE_PACKAGES: string[] = [];

const root = path.join(import.meta.dirname ?? path.dirname(new URL(import.meta.url).pathname));

function sources(folder: string): string[] {
  return fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const file = path.join(folder, entry.name);
    if (entry.isDirectory()) return sources(file);
    return /\.tsx?$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name) ? [file] : [];
  });
}

function importsOf(file: string): { specifier: string; typeOnly: boolean }[] {
  const text = fs.readFileSync(file, 'utf8');
  return [
    ...text.matchAll(/^(?:import|export)\s+(type\s)?[^;]*?from\s+'([^']+)'|^import\s+'([^']+)'|import\('([^']+)'\)/gm),
  ].map((m) => ({
    specifier: m[2] ?? m[3] ?? m[4],
    typeOnly: m[1] !== undefined,
  }));
}

describe('arrows point toward the core', () => {
  const layers = Object.keys(MAY_USE);
  it.each(layers)('%s', (layer) => {
    const files = sources(path.join(root, layer));
    expect(files.length).toBeGreaterThan(0);
    const wrong: string[] = [];
    for (const file of files) {
      for (const { specifier, typeOnly } of importsOf(file)) {
        const where = `${path.relative(root, file)} → ${specifier}`;
        if (!specifier.startsWith('.')) {
          if (layer === 'core' && !CORE_PACKAGES.includes(specifier)) wrong.push(where);
          continue;
        }
        const target = path.relative(root, path.resolve(path.dirname(file), specifier)).split(path.sep)[0];
        const allowed = target === layer || MAY_USE[layer].includes(target) || !layers.includes(target);
        const asType = typeOnly && layer === 'ui' && TYPES_FOR_UI.includes(target);
        if (!allowed && !asType) wrong.push(where);
      }
    }
    expect(wrong).toEqual([]);
  });

  it('the core knows no clock and no randomness', () => {
    const found = sources(path.join(root, 'core')).filter((f) =>
      /Date\.now|new Date\(\)|performance\.now|Math\.random/.test(fs.readFileSync(f, 'utf8')),
    );
    expect(found).toEqual([]);
  });
});
