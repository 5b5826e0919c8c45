import { foresee } from '../memory/memory.ts';
import { beginFile, goOn } from '../watch.ts';
import { addedSizes } from '../weigh-together.ts';
import type { ReadModule } from './read-module.ts';
import { shippedSizes, smallText } from './small-text.ts';

/**
 * Minifies and weighs modules, each alone and beside those of its kind, in the order of their paths; lets go of what they were read from. `mentions`:
 * whether it will be asked which names scripts mention.
 */
export function weighModules(sorted: readonly ReadModule[], mentions: boolean): void {
  for (const m of sorted) makeSmall(m);
  foresee((by) => {
    by.sizes(sorted.map((m) => ({ path: m.path, text: m.minified, mentions: mentions && m.kind !== 'style' })));
  });
  for (const [i, m] of sorted.entries()) {
    goOn('weighing files', i);
    weigh(m);
  }
  for (const style of [true, false]) {
    const alike = sorted.filter((m) => (m.kind === 'style') === style);
    const files = alike.map(({ path, minified, module }) => ({ path, text: minified, gzip: module.bytes.gzip }));
    addedSizes(files).forEach((added, i) => {
      Object.assign(alike[i].module.bytes, added);
    });
  }
}

function makeSmall(m: ReadModule): void {
  if (!m.code) return;
  beginFile(m.path);
  const { text, commonJs, small } = m.code;
  m.minified = (small ?? smallText(m.path, text, commonJs)) + m.minified;
  m.code = null;
}

function weigh(m: ReadModule): void {
  // A file without anything in it is none.
  if (m.minified === '') return;
  const { minified, module } = m;
  const { source } = module.bytes;
  module.bytes = { ...shippedSizes(minified), source, marginal: 0 };
}
