import MagicString from 'magic-string';
import type { EcmaScriptModule } from 'oxc-parser';
import { remembered } from '../memory/memory.ts';
import { minifyScript } from '../weigh.ts';
import { parseRecords } from './parse.ts';
import { liveNamesOf } from './records.ts';

/** What is left of a script of which only some exports are taken. */
export interface LiveCode {
  /** Minified. */
  small: string;
  /** Names that it still takes of each specifier; of one that it only runs, none. */
  takes: Map<string, Set<string>>;
}

/**
 * A script as a build ships it when only some of its exports are taken: what only the others need is gone, as far as
 * leaving it out changes nothing (the language’s rules and `PURE` notes, as the minifier knows them). `wanted`: names of
 * exports; null for all.
 */
export function liveCode(path: string, code: string, wanted: ReadonlySet<string> | null): LiveCode {
  const names = wanted === null ? '*' : [...wanted].sort().join();
  return remembered('live', [path, names, code], () => leftOf(path, code, wanted));
}

function leftOf(path: string, code: string, wanted: ReadonlySet<string> | null): LiveCode {
  const left = wanted === null ? null : withoutExports(code, wanted);
  // With its last export gone, it has to be named as a module still: names of scripts are everybody’s.
  const small = left === null ? minifyScript(`${path}.js`, code) : minifyScript(`${path}.mjs`, left);
  return { small, takes: liveNamesOf(parseRecords('out.js', small).module) };
}

type Statement = EcmaScriptModule['staticExports'][number];
type Entry = Statement['entries'][number];

/** The same module without exports that nobody wants; what they stand for stays. Null for what isn’t written as a module. */
function withoutExports(code: string, wanted: ReadonlySet<string>): string | null {
  const { module } = parseRecords('in.js', code);
  if (!module.hasModuleSyntax) return null;
  const text = new MagicString(code);
  for (const statement of module.staticExports) {
    const isWanted = (e: Entry) => wanted.has(exportedName(e) ?? '');
    if (statement.entries.every((e) => exportedName(e) === null || isWanted(e))) continue;
    const declared = statement.entries.filter(isDeclaration);
    if (declared.length > 0) {
      text.remove(statement.start, declared[0].start);
      const names = declared.filter(isWanted).map(listed);
      if (names.length > 0) text.appendLeft(statement.end, `\nexport{${names.join(',')}};`);
    }
    for (const entry of statement.entries) {
      if (isDeclaration(entry) || exportedName(entry) === null || isWanted(entry)) continue;
      if (entry.exportName.kind === 'Default') keepValue(text, statement, entry, code);
      else if (entry.importName.kind === 'All') text.overwrite(entry.start, entry.moduleRequest!.start, 'import ');
      else removeListed(text, entry, code);
    }
  }
  return text.toString();
}

/** The name of an export; null for all of another module’s. */
function exportedName({ exportName: { kind, name } }: Entry): string | null {
  return kind === 'Default' ? 'default' : name;
}

/** `export const a = …`, `export function a() …`, `export default function a() …`: a place of its own in front of the name. */
function isDeclaration({ localName, start }: Entry): boolean {
  return localName.kind === 'Name' && localName.start !== null && localName.start > start;
}

/** A declared name as an entry of a list. */
function listed({ exportName, localName }: Entry): string {
  return exportName.kind === 'Default' ? `${localName.name} as default` : localName.name!;
}

const VALUE = '_unexported';

/** A value that was the default export, and may do something by being made. */
function keepValue(text: MagicString, { start }: Statement, entry: Entry, code: string): void {
  let name = VALUE;
  while (code.includes(name)) name += '_';
  text.overwrite(start, entry.start, `const ${name}=`);
  text.appendLeft(entry.end, ';');
}

/** Takes an entry out of a list, with the comma behind it. */
function removeListed(text: MagicString, { start, end }: Entry, code: string): void {
  const behind = /^(?:\s|\/\*[\s\S]*?\*\/|\/\/[^\n]*\n)*,/.exec(code.slice(end, end + LONGEST_GAP));
  text.remove(start, end + (behind?.[0].length ?? 0));
}

/** Comments between an entry and its comma are short. */
const LONGEST_GAP = 2000;
