import { InputError } from '../errors.ts';
import { eachOnce, withinList } from '../form/cross-checks.ts';
import { refined } from '../form/form.ts';
import type { BuiltOutput } from './output-types.ts';
import { SNAPSHOT_FORM, type Snapshot } from './types.ts';

/** A snapshot whose parts fit together: every number and path in it names something that is there. */
export const SNAPSHOT = refined(SNAPSHOT_FORM, fitsTogether);

function fitsTogether({ modules, imports, entries, output }: Snapshot, at: string): void {
  eachOnce(
    modules.map((m) => m.path),
    (i, path) => new InputError('Module twice', `${path} is listed more than once.`, `${at}.modules[${i}].path`),
  );
  imports.forEach(({ from, to }, i) => {
    withinList(from, modules.length, 'modules', `${at}.imports[${i}].from`, 'Import of nothing');
    withinList(to, modules.length, 'modules', `${at}.imports[${i}].to`, 'Import of nothing');
  });
  modules.forEach(({ draws = [], makes = [] }, i) => {
    for (const [n, module] of makes.entries())
      withinList(module, modules.length, 'modules', `${at}.modules[${i}].makes[${n}]`);
    for (const [n, { module }] of draws.entries())
      withinList(module, modules.length, 'modules', `${at}.modules[${i}].draws[${n}].module`);
  });
  const paths = new Set(modules.map((m) => m.path));
  entries.forEach((entry, i) => {
    for (const [n, path] of entry.modules.entries())
      if (!paths.has(path))
        throw new InputError(
          'Entry without a module',
          `There is no module ${path}.`,
          `${at}.entries[${i}].modules[${n}]`,
        );
  });
  if (output) filesFit(output, modules.length, `${at}.output`);
}

function filesFit({ files, starts }: BuiltOutput, modules: number, at: string): void {
  files.forEach((file, i) => {
    const where = `${at}.files[${i}]`;
    for (const [n, { module }] of file.modules.entries())
      withinList(module, modules, 'modules', `${where}.modules[${n}].module`);
    for (const [n, { to }] of file.imports.entries())
      withinList(to, files.length, 'files', `${where}.imports[${n}].to`);
  });
  starts.forEach(({ tags }, i) => {
    for (const [n, { file }] of tags.entries())
      withinList(file, files.length, 'files', `${at}.starts[${i}].tags[${n}].file`);
  });
}
