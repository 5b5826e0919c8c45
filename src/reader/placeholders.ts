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
  // Brings a React of its own, the 19th from here on; the same 300 ms stand in what it ships.
  { package: 'next', from: 15, rule: { holdMs: 300 } },
];

/** The rule of the component system that an app has; null where it keeps no placeholder, or none is known. */
export function keptPlaceholders(packages: readonly Package[]): Placeholders | null {
  for (const { package: name, from, rule } of KEPT) {
    const version = packages.find((p) => p.name === name)?.version;
    if (version && Number(/^\d+/.exec(version)?.[0]) >= from) return { ...rule, source: `${name} ${version}` };
  }
  return null;
}
