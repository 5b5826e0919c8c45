import { textIfThere } from './folder-files.ts';
import type { FoundImport } from './found-import.ts';
import { nestsTooDeep } from './nesting.ts';
import { parseRecords } from './script/parse.ts';

/** Names that files export, with the file of each: what scripts may use without an import, by the convention of their folder. */
export function namesOfFiles(bounds: string, root: string, files: readonly string[]): Map<string, string> {
  const names = new Map<string, string>();
  for (const file of files) {
    const text = textIfThere(bounds, `${root}/${file}`);
    if (text === null || nestsTooDeep(text)) continue;
    for (const { entries } of parseRecords(file, text, { lang: 'ts' }).module.staticExports)
      for (const { exportName, isType } of entries) {
        const bare = file.slice(file.lastIndexOf('/') + 1).replace(/\.\w+$/, '');
        const name =
          exportName.kind === 'Default' ? bare.replace(/-(\w)/g, (_, l: string) => l.toUpperCase()) : exportName.name;
        if (name && !isType && !names.has(name)) names.set(name, file);
      }
  }
  return names;
}

/** Imports that a file needs for names that it uses and neither imports nor declares. */
export function importsByName(text: string, path: string, names: ReadonlyMap<string, string>): FoundImport[] {
  const found = new Map<string, FoundImport>();
  const words = new Set(text.match(/[A-Za-z_$][\w$]*/g));
  for (const [name, file] of names) {
    if (!words.has(name) || file === path || isBound(text, name)) continue;
    const specifier = `/${file}`;
    const known = found.get(specifier);
    if (known) known.names.push(name);
    else found.set(specifier, { kind: 'static', specifier, names: [name], line: 1, column: 1, start: 0, end: 0 });
  }
  return [...found.values()];
}

/** Whether a text imports or declares a name, or only uses it as that of a field. */
function isBound(text: string, name: string): boolean {
  const n = name.replace(/\$/g, '\\$&');
  if (new RegExp(`\\b(?:const|let|var|function|class)\\s+${n}\\b|\\bimport\\b[^;'"]{0,500}\\b${n}\\b`).test(text))
    return true;
  return !new RegExp(`(?:^|[^.\\w$])${n}\\s{0,9}[(.<,)\\]}]`).test(text);
}
