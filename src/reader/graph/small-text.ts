import type { ModuleBytes } from '../../core/snapshot/module-types.ts';
import { remembered } from '../memory/memory.ts';
import { minifyCommonJs, minifyScript, weigh } from '../weigh.ts';

/** A script made small, with all that it exports. */
export function smallText(path: string, code: string, commonJs: boolean): string {
  const minify = commonJs ? minifyCommonJs : minifyScript;
  return remembered('small', [path, String(commonJs), code], () => minify(`${path}.js`, code));
}

/** Sizes of what ships of a module, alone. */
export function shippedSizes(minified: string): Omit<ModuleBytes, 'marginal' | 'source'> {
  return remembered('weight', [minified], () => weigh(minified));
}
