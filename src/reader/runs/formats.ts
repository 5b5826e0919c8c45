import { graphIndex } from '../../core/snapshot/graph-index.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { parse } from '../script/parse.ts';
import { isSingleFile } from '../single-file.ts';
import { walkAtStart } from './at-start.ts';
import { doesFormat, type HowOften, moreOften } from './called-in-functions.ts';
import type { FunctionsOf } from './functions-of.ts';

/** What any script has that formats something. */
const MAY_FORMAT = /\bIntl\.|\btoLocale(?:Date|Time)?String\b|\blocaleCompare\b/;

/**
 * Notes of the app's modules whether they format numbers, dates or texts of a language as they run, and whether their functions do, or functions of other modules that
 * these call. `texts`: what ships of each module, by path.
 */
export function addFormats(
  snapshot: Snapshot,
  texts: Readonly<Record<string, string>>,
  functions: Pick<FunctionsOf, 'at'>,
): void {
  const { modules, imports } = snapshot;
  const { inStart, incoming } = graphIndex(snapshot);
  const open: number[] = [];
  const note = (m: number, often: HowOften | undefined) => {
    if (often === undefined || moreOften(modules[m].formats, often) === modules[m].formats) return;
    modules[m].formats = often;
    open.push(m);
  };
  modules.forEach((m, at) => {
    if (m.kind !== 'script' || m.package !== null || !MAY_FORMAT.test(texts[m.path] ?? '')) return;
    if (startsFormats(texts[m.path])) m.startsFormats = true;
    note(at, functions.at(m.path).formats);
  });
  for (const m of open) {
    // Compilers have components called by those around them; each is drawn by itself.
    if (isSingleFile(modules[m].path)) continue;
    for (let e = inStart[m]; e < inStart[m + 1]; e++) {
      const { from, kind, specifier } = imports[incoming[e]];
      const { package: name, kind: is, path } = modules[from];
      if (kind !== 'static' || name !== null || is !== 'script') continue;
      const called = functions.at(path).imports.get(specifier);
      if (called !== undefined) note(from, called === 'always' ? modules[m].formats : called);
    }
  }
}

/** Whether a script formats something as it runs, and not only in functions. */
export function startsFormats(text: string): boolean {
  let starts = false;
  walkAtStart(parse('out.js', text).program(), (node) => {
    starts ||= (node.type === 'NewExpression' || node.type === 'CallExpression') && doesFormat(node);
  });
  return starts;
}
