import fs from 'node:fs';
import path from 'node:path';

/** Layers from the core outward; each may use the ones named, and itself. */
const MAY_USE: Record<string, string[]> = {
  core: [],
  reader: ['core'],
  patch: ['core', 'reader'],
  rehearse: ['core', 'reader', 'patch'],
  store: ['core'],
  // What a page shows first is worked out by the same services, before its own thread has the app.
  server: ['core', 'reader', 'patch', 'rehearse', 'store', 'worker'],
  worker: ['core'],
  ui: ['core', 'worker'],
  app: ['core', 'server', 'ui'],
  cli: ['core', 'reader', 'patch', 'rehearse'],
};
/** Shapes of what the server answers, which the interface may name as types. */
const TYPES_FOR_UI = ['server', 'store', 'patch'];
const CORE_PACKAGES: string[] = [];

/** The core's folders in their order: each may use those before it. */
const CORE_ORDER = [
  ...['text', 'form', 'vocabulary', 'snapshot', 'plan', 'ship', 'chunks', 'load', 'sim', 'metrics', 'mix', 'predict'],
  ...['visits', 'visitors', 'explain', 'inventory', 'outline', 'load-sheet', 'compare', 'limits', 'amend'],
  ...['advise', 'choose', 'handoff', 'reconcile', 'recordings', 'rehearsals', 'check', 'formats'],
];

/** The interface's folders, each with those that it may use; a station uses no other station. */
const UI_MAY_USE: Record<string, string[]> = {
  parts: [],
  state: ['parts'],
  stations: ['parts', 'state'],
  frame: ['parts', 'state', 'stations'],
};

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
    ...text.matchAll(
      /^(?:import|export)\s+(type\s)?[^;]*?from\s+'([^']+)'|^import\s+'([^']+)'|\bimport\('([^']+)'\)/gm,
    ),
  ].map((m) => ({
    specifier: m[2] ?? m[3] ?? m[4],
    typeOnly: m[1] !== undefined,
  }));
}

/** Imports between files below a folder, as paths from it. */
function arrowsIn(folder: string): { from: string; to: string }[] {
  const at = path.join(root, folder);
  return sources(at).flatMap((file) =>
    importsOf(file)
      .filter(({ specifier }) => specifier.startsWith('.'))
      .map(({ specifier }) => ({
        from: path.relative(at, file),
        to: path.relative(at, path.resolve(path.dirname(file), specifier)),
      }))
      .filter(({ to }) => !to.startsWith('..')),
  );
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

  it('in the core, from folder to folder in the order written down here', () => {
    const folders = fs.readdirSync(path.join(root, 'core'), { withFileTypes: true }).filter((e) => e.isDirectory());
    expect(folders.map((f) => f.name).sort()).toEqual([...CORE_ORDER].sort());
    const rank = (file: string) => CORE_ORDER.indexOf(file.split(path.sep)[0]);
    const wrong = arrowsIn('core').filter(({ from, to }) => rank(to) > rank(from));
    expect(wrong).toEqual([]);
  });

  it('has all code that is fetched later come by one way, which survives a server that is gone', () => {
    const others = sources(path.join(root, 'ui')).filter(
      (f) => /from 'next\/dynamic'|\blazy\(/.test(fs.readFileSync(f, 'utf8')) && !f.endsWith('later.tsx'),
    );
    expect(others).toEqual([]);
  });

  it('in the interface, from the frame through stations and state to parts', () => {
    const wrong = arrowsIn('ui').filter(({ from, to }) => {
      const [layer, station] = from.split(path.sep);
      const [other, otherStation] = to.split(path.sep);
      if (layer === other) return layer === 'stations' && station !== otherStation;
      return !UI_MAY_USE[layer].includes(other);
    });
    expect(wrong).toEqual([]);
    const parts = sources(path.join(root, 'ui/parts')).flatMap((f) => importsOf(f).map((i) => i.specifier));
    expect(parts.filter((s) => /\/(worker|server|store|patch)\//.test(s))).toEqual([]);
  });

  it('in no circle of files, types included', () => {
    const next = new Map<string, string[]>();
    for (const { from, to } of arrowsIn('.')) next.set(from, [...(next.get(from) ?? []), to]);
    expect(circlesOf(next)).toEqual([]);
  });

  it('the core knows no clock and no randomness', () => {
    const found = sources(path.join(root, 'core')).filter((f) =>
      /Date\.now|new Date\(\)|performance\.now|Math\.random/.test(fs.readFileSync(f, 'utf8')),
    );
    expect(found).toEqual([]);
  });
});

describe('public functions of the core', () => {
  it('say what they give', () => {
    const bare = sources(path.join(root, 'core')).flatMap((file) => {
      // What is handed over as text has functions of its own.
      const lines = fs
        .readFileSync(file, 'utf8')
        .replace(/`[^`]*`/g, '``')
        .split('\n');
      return lines.flatMap((line, at) => {
        const [, name] = /^export (?:async )?function\*? (\w+)/.exec(line) ?? [];
        return name && !lines[at - 1]?.endsWith('*/') ? [`${path.relative(root, file)}: ${name}`] : [];
      });
    });
    expect(bare).toEqual([]);
  });
});

describe('circles', () => {
  it('are found, however long', () => {
    const next = new Map([
      ['a', ['b']],
      ['b', ['c', 'd']],
      ['c', ['a']],
      ['d', []],
    ]);
    expect(circlesOf(next)).toEqual([['a', 'b', 'c', 'a']]);
  });
});

/** One circle for each file that an unfinished walk comes back to. */
function circlesOf(next: ReadonlyMap<string, string[]>): string[][] {
  const done = new Set<string>();
  const circles: string[][] = [];
  const walk = (file: string, way: string[]) => {
    const at = way.indexOf(file);
    if (at >= 0) circles.push([...way.slice(at), file]);
    if (at >= 0 || done.has(file)) return;
    for (const to of next.get(file) ?? []) walk(to, [...way, file]);
    done.add(file);
  };
  for (const file of next.keys()) walk(file, []);
  return circles;
}
