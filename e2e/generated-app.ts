/** A small app of modules that import one another at random: what a browser asks for when it runs says whether it was read right. */
export interface GeneratedApp {
  files: Record<string, string>;
  /** Ids of the buttons that make a deferred import. */
  buttons: string[];
}

const ENDINGS = ['js', 'ts', 'tsx', 'mjs'];

/** The same app for the same seed. */
export function generatedApp(seed: number): GeneratedApp {
  const chance = seeded(seed);
  const pick = <T>(all: readonly T[]): T => all[Math.floor(chance() * all.length)];
  const count = 8 + Math.floor(chance() * 22);
  const folders = ['src', 'src/near', 'src/far/away', 'packages/reeds'];
  const paths = Array.from({ length: count }, (_, i) => `${pick(folders)}/m${i}.${pick(ENDINGS)}`);
  const files: Record<string, string> = { 'package.json': '{ "name": "generated", "private": true }' };
  const buttons: string[] = [];
  paths.forEach((path, i) => {
    const lines: string[] = [];
    const typed = /\.tsx?$/.test(path);
    const to = () => pick(paths);
    const address = (target: string) => specifierOf(path, target, chance);
    for (let n = Math.floor(chance() * 3); n > 0; n--) {
      const target = to();
      if (target === path) continue;
      const at = paths.indexOf(target);
      const from = address(target);
      const local = `a${n}`;
      const kind = chance();
      if (kind < 0.2) lines.push(`import '${from}';`);
      else if (kind < 0.4) lines.push(`import * as ${local} from "${from}"; keep(() => ${local});`);
      else if (kind < 0.6)
        lines.push(`import ${local}, { v${at} as b${n} } from '${from}'; keep(() => [${local}, b${n}]);`);
      else if (kind < 0.7) lines.push(`export * as all${n} from '${from}';`);
      else if (kind < 0.8) lines.push(`export { v${at} as again${n} } from '${from}';`);
      else if (kind < 0.9 && typed)
        lines.push(`import type { Shape${at} } from '${from}'; let shape${n}: Shape${at} | undefined;`);
      else lines.push(`import { v${at} as ${local} } from '${from}'; /* import('./nowhere') */ keep(() => ${local});`);
    }
    if (chance() < 0.25) {
      const target = to();
      const id = `b${i}`;
      buttons.push(id);
      const call = pick([
        (s: string) => `import('${s}')`,
        (s: string) => `import(/* a note, as builds know it */ \`${s}\`)`,
        (s: string) => `(async () => { await import("${s}"); })()`,
        (s: string) => `import('${s}').then((m) => m.default)`,
      ]);
      lines.push(`onPress('${id}', () => ${call(address(target))});`);
    }
    if (typed) lines.push(`export interface Shape${i} { own: number }`);
    lines.push(`export const v${i}${typed ? ': number' : ''} = ${i};`, `export default ${i};`);
    lines.push(
      'function keep(use) { (globalThis.kept ??= []).push(use); }'.replace('(use)', typed ? '(use: unknown)' : '(use)'),
    );
    lines.push(
      `function onPress(id${typed ? ': string' : ''}, does${typed ? ': () => unknown' : ''}) { const b = document.createElement('button'); b.id = id; b.onclick = does; document.body.append(b); }`,
    );
    files[path] = `${lines.join('\n')}\n`.replaceAll(
      'globalThis.kept',
      typed ? '(globalThis as any).kept' : 'globalThis.kept',
    );
  });
  const starts = [paths[0], ...(chance() < 0.5 ? [pick(paths)] : [])];
  files['index.html'] = `<!doctype html><meta charset="utf-8"><title>generated</title><body>${[...new Set(starts)]
    .map((s) => `<script type="module" src="/${s}"></script>`)
    .join('')}`;
  return { files, buttons };
}

/** How a module names another one: with its ending, without it, or from the top. */
function specifierOf(from: string, to: string, chance: () => number): string {
  const up = '../'.repeat(from.split('/').length - 1);
  const way = chance() < 0.2 ? `/${to}` : `${up === '' ? './' : up}${to}`;
  return chance() < 0.5 ? way : way.replace(/\.\w+$/, '');
}

function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}
