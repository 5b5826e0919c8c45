import { addMapping, GenMapping, setSourceContent, toEncodedMap } from '@jridgewell/gen-mapping';

/** What a build made of one source: its text in the output. */
export interface BuiltPiece {
  source: string;
  out: string;
  content?: string;
}

/** One file of an output: pieces of sources one after the other in one line, each in a wrapper that no source owns. */
export function builtFile(pieces: BuiltPiece[], wrapper: [string, string] = ['', '']): { text: string; map: string } {
  const map = new GenMapping();
  let text = '';
  for (const { source, out, content } of pieces) {
    text += wrapper[0];
    addMapping(map, { generated: { line: 1, column: text.length }, source, original: { line: 1, column: 0 } });
    if (content !== undefined) setSourceContent(map, source, content);
    text += out;
    addMapping(map, { generated: { line: 1, column: text.length } });
    text += wrapper[1];
  }
  return { text, map: JSON.stringify(toEncodedMap(map)) };
}

/** The files of an output with maps beside them. */
export function outputOf(files: Record<string, { text: string; map: string }>): Record<string, string> {
  const all: Record<string, string> = {};
  for (const [name, { text, map }] of Object.entries(files)) {
    const base = name.replace(/^.*\//, '');
    const comment = name.endsWith('.css') ? `/*# sourceMappingURL=${base}.map */` : `//# sourceMappingURL=${base}.map`;
    all[name] = `${text}\n${comment}\n`;
    all[`${name}.map`] = map;
  }
  return all;
}
