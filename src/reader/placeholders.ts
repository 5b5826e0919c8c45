import type { Package } from '../core/snapshot/module-types.ts';
import type { Placeholders } from '../core/snapshot/placeholders.ts';

/**
 * How long component systems keep a placeholder, by package and first major version, measured in Chromium: a deferred component whose code
 * came 20, 50, 150, 280 and 400 ms after its placeholder, with and without another one inside (docs/SIMULATOR.md).
 */
const KEPT: { package: string; from: number; rule: Placeholders }[] = [
  // Shown 302 ms after the placeholder, whenever the code came before that.
  { package: 'react-dom', from: 19, rule: { holdMs: 300 } },
  // Only where another one is left to wait for inside of it: 501 ms.
  { package: 'react-dom', from: 18, rule: { holdMs: 500, nested: true } },
  // In its app folder it draws with a React of its own, whatever is installed: the 19th from here on, before that a late 18th. The same
  // times stand in what it ships.
  { package: 'next', from: 15, rule: { holdMs: 300 } },
  { package: 'next', from: 13, rule: { holdMs: 500, nested: true } },
];

/**
 * The rule of the component system that an app has; null where it keeps no placeholder, or none is known. `broughtBy`: the package that brings its
 * own component system along, which counts in place of the installed one.
 */
export function keptPlaceholders(packages: readonly Package[], broughtBy: string | null = null): Placeholders | null {
  const version = packages.find((p) => p.name === broughtBy)?.version;
  const of = version ? broughtBy : 'react-dom';
  const found = packages.find((p) => p.name === of)?.version;
  const major = found ? Number(/^\d+/.exec(found)?.[0]) : Number.NaN;
  const kept = KEPT.find((k) => k.package === of && major >= k.from);
  return kept ? { ...kept.rule, source: `${of} ${found}` } : null;
}
