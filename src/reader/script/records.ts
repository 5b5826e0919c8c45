import type { EcmaScriptModule } from 'oxc-parser';
import type { FoundImport } from '../found-import.ts';
import type { SourceText } from '../source-text.ts';
import type { ScriptExports } from './parsed-script.ts';

/** Names that are taken from each specifier in what is left once types are gone. */
export function liveNamesOf(live: EcmaScriptModule): Map<string, Set<string>> {
  const names = new Map<string, Set<string>>();
  const note = (specifier: string, taken: string[]) => {
    const known = names.get(specifier) ?? new Set();
    for (const n of taken) known.add(n);
    names.set(specifier, known);
  };
  for (const item of live.staticImports)
    note(
      item.moduleRequest.value,
      item.entries.map((e) => importedName(e.importName)),
    );
  for (const item of live.staticExports) {
    for (const e of item.entries)
      if (e.moduleRequest && isFrom(item, e)) note(e.moduleRequest.value, [importedName(e.importName)]);
  }
  return names;
}

/** Static imports and exports from elsewhere, as written, as far as they are live; then those that the compiler adds. */
export function staticImportsOf(
  written: EcmaScriptModule,
  liveNames: ReadonlyMap<string, ReadonlySet<string>>,
  source: SourceText,
): FoundImport[] {
  const imports: FoundImport[] = [];
  const seen = new Map<string, Set<string>>();
  const add = (specifier: string, names: string[], start: number, end: number) => {
    const known = seen.get(specifier) ?? new Set();
    for (const name of names) known.add(name);
    seen.set(specifier, known);
    imports.push({ kind: 'static', specifier, names, ...source.place(start), start, end });
  };
  for (const item of written.staticImports) {
    const names = liveNames.get(item.moduleRequest.value);
    if (!names) continue;
    const own = item.entries
      .filter((e) => !e.isType)
      .map((e) => importedName(e.importName))
      .filter((n) => names.has(n));
    if (item.entries.length === 0 || own.length > 0) add(item.moduleRequest.value, own, item.start, item.end);
  }
  for (const item of written.staticExports) {
    const request = item.entries.find((e) => isFrom(item, e) && !e.isType)?.moduleRequest;
    if (!request || !liveNames.has(request.value)) continue;
    const names = item.entries.filter((e) => !e.isType).map((e) => importedName(e.importName));
    add(request.value, names, item.start, item.end);
    const passesAll = item.entries.some((e) => e.exportName.kind === 'None' && !e.isType);
    if (passesAll) imports[imports.length - 1].passesAll = true;
  }
  // What a compiler takes of a module counts beside what is written of the same one.
  for (const [specifier, names] of liveNames) {
    const known = seen.get(specifier);
    const added = [...names].filter((n) => !known?.has(n));
    if (!known || added.length > 0) add(specifier, added, 0, 0);
  }
  return imports;
}

/** Names that a module exports: its own, those that it passes on by name, and modules that it passes on whole. */
export function exportsOf(module: EcmaScriptModule): ScriptExports {
  const exports: ScriptExports = { named: [], stars: [], own: [] };
  // `import { a } from './a'; export { a };` passes a name on as well.
  const passed = new Map<number, { specifier: string; imported: string }>();
  for (const { entries, moduleRequest } of module.staticImports)
    for (const e of entries)
      for (const place of [e.importName.start, e.localName.start])
        if (place !== null) passed.set(place, { specifier: moduleRequest.value, imported: importedName(e.importName) });
  // The language counts `import * as a from './a'; export { a };` to a module’s own exports; builds pass it on all the same.
  const whole = new Map(
    module.staticImports.flatMap(({ entries, moduleRequest }) =>
      entries
        .filter((e) => e.importName.kind === 'NamespaceObject')
        .map((e) => [e.localName.value, moduleRequest.value]),
    ),
  );
  for (const item of module.staticExports) {
    for (const e of item.entries) {
      const name = e.exportName.kind === 'Default' ? 'default' : e.exportName.name;
      if (!e.moduleRequest || !isFrom(item, e)) {
        const of = whole.get(e.localName.name ?? '');
        const from = e.moduleRequest
          ? passed.get(e.importName.start ?? -1)
          : of === undefined
            ? undefined
            : { specifier: of, imported: '*' };
        if (name && from) exports.named.push({ name, ...from });
        else if (name) exports.own.push(name);
      } else if (name)
        exports.named.push({ name, specifier: e.moduleRequest.value, imported: importedName(e.importName) });
      else exports.stars.push(e.moduleRequest.value);
    }
  }
  return exports;
}

type ExportItem = EcmaScriptModule['staticExports'][number];

/** Whether an export names its module in the same statement; the parser lists an imported name that is exported under its import. */
function isFrom({ start, end }: ExportItem, entry: ExportItem['entries'][number]): boolean {
  return entry.moduleRequest !== null && entry.start >= start && entry.end <= end;
}

function importedName(name: { kind: string; name: string | null }): string {
  if (name.kind === 'Default') return 'default';
  return name.name ?? '*';
}
