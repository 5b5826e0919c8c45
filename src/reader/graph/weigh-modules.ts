import { beginFile } from '../watch.ts';
import { addedSizes } from '../weigh-together.ts';
import type { ReadModule } from './read-module.ts';
import { shippedSizes, smallText } from './small-text.ts';

/** Minifies and weighs modules, each alone and beside those of its kind, in the order of their paths; lets go of what they were read from. */
export function weighModules(sorted: readonly ReadModule[]): void {
  for (const m of sorted) weighed(m);
  for (const style of [true, false]) {
    const alike = sorted.filter((m) => (m.kind === 'style') === style);
    const files = alike.map(({ path, minified, module }) => ({ path, text: minified, gzip: module.bytes.gzip }));
    addedSizes(files).forEach((added, i) => {
      Object.assign(alike[i].module.bytes, added);
    });
  }
}

function weighed(m: ReadModule): void {
  if (m.code) {
    beginFile(m.path);
    const { text, commonJs, small } = m.code;
    m.minified = (small ?? smallText(m.path, text, commonJs)) + m.minified;
    m.code = null;
  }
  // A file without anything in it is none.
  if (m.minified === '') return;
  const { minified, module } = m;
  const { source } = module.bytes;
  module.bytes = { ...shippedSizes(minified), source, marginal: 0 };
}
