import path from 'node:path';
import type { Module, Package } from '../../core/snapshot/module-types.ts';
import type { Notice, Unresolved } from '../../core/snapshot/types.ts';
import { pathFrom } from '../path-from.ts';
import { OUTSIDE } from '../resolve.ts';
import { compilerVersion } from '../templates/compilers.ts';

/** The package that a bare specifier names: `@mill/ui` of `@mill/ui/wheel`; null for a path. */
function packageName(specifier: string): string | null {
  if (/^[./#~$]|^[a-z]+:|^@\//i.test(specifier)) return null;
  return /^(@[^/]+\/)?[^/?]+/.exec(specifier)?.[0] ?? null;
}

/** Packages that aren't there: without them every size is too small, nobody knows by how much. */
export function missingPackages(unresolved: readonly Unresolved[], modules: readonly Module[]): Notice[] {
  const importers = new Map<string, Set<string>>();
  for (const { from, specifier, leftOut, reason } of unresolved) {
    const name = leftOut || reason === OUTSIDE ? null : packageName(specifier);
    if (name === null || from.includes('node_modules/')) continue;
    importers.set(name, (importers.get(name) ?? new Set()).add(from));
  }
  const own = modules.filter((m) => m.kind === 'script' && !m.path.includes('node_modules/')).length;
  return [...importers]
    .sort(([, a], [, b]) => b.size - a.size)
    .map(([name, { size }]) => ({
      kind: 'missing package',
      path: name,
      message: `isn’t installed where the app was read; ${size} of its ${own} scripts import it. Every size is too small by what it weighs, which isn’t known: install the packages and read again`,
    }));
}

/** What lies around the folder: the nearest folder that holds it all, as the way from the app's folder. */
export function outsideOf(root: string, outside: ReadonlySet<string>, unresolved: readonly Unresolved[]): Notice[] {
  const imports = unresolved.filter((u) => u.reason === OUTSIDE).length;
  if (outside.size === 0 || imports === 0) return [];
  let around = path.dirname(root);
  while (around !== path.dirname(around) && [...outside].some((o) => !`${o}${path.sep}`.startsWith(around + path.sep)))
    around = path.dirname(around);
  if (around === path.dirname(around)) return [];
  const way = pathFrom(root, around);
  const lead = imports === 1 ? '1 import leads' : `${imports} imports lead`;
  const message = `${lead} out of the folder that was read, to packages of a workspace around it. What these weigh is missing from every figure until the workspace ${way} may be read too`;
  return [{ kind: 'outside', path: way, message }];
}

/** Templates of a framework, by what their files end with or what compiles them, and the package whose version they are for. */
const COMPILED: { fits: (path: string) => boolean; runtime: string; compiler: string; words: string }[] = [
  { fits: (p) => p.endsWith('.vue'), runtime: 'vue', compiler: '@vue/compiler-sfc', words: 'Vue' },
  { fits: (p) => p.endsWith('.svelte'), runtime: 'svelte', compiler: 'svelte', words: 'Svelte' },
  { fits: () => true, runtime: '@angular/core', compiler: '@angular/compiler', words: 'Angular' },
];

/** Where the app's version of a framework isn't the one whose compiler is used here: what templates weigh is an estimate then. */
export function otherVersions(modules: readonly Module[], packages: readonly Package[]): Notice[] {
  return COMPILED.flatMap(({ fits, runtime, compiler, words }): Notice[] => {
    const installed = packages.find((p) => p.name === runtime)?.version;
    if (!installed || !modules.some((m) => !m.path.includes('node_modules/') && fits(m.path))) return [];
    const used = compilerVersion(compiler);
    if (minor(installed) === minor(used)) return [];
    const message = `${words} components are compiled with version ${used} here, and the app has ${installed}: what they weigh is an estimate`;
    return [{ kind: 'other version', path: runtime, message }];
  });
}

function minor(version: string): string {
  return version.split('.').slice(0, 2).join('.');
}
