/** Components written in one file: script blocks beside a template and styles. */
const SINGLE_FILE = /\.(vue|svelte)$/;
const SCRIPT_BLOCK = /(<script\b([^>]*)>)([\s\S]*?)<\/script>/g;

export function isSingleFile(path: string): boolean {
  return SINGLE_FILE.test(path);
}

export interface SingleFile {
  /** The scripts alone, everything else blanked, so that places stay where they are in the file. */
  script: string;
  /** A name for it whose ending tells the language. */
  scriptPath: string;
  /** Template and styles, without needless white space: weighed, not followed. */
  rest: string;
}

/** Takes a single-file component apart. */
export function splitSingleFile(path: string, text: string): SingleFile {
  let script = '';
  let rest = '';
  let end = 0;
  let typed = false;
  for (const found of text.matchAll(SCRIPT_BLOCK)) {
    const [whole, open, attributes, body] = found;
    const from = found.index + open.length;
    script += blank(text.slice(end, from)) + body;
    rest += text.slice(end, found.index);
    end = from + body.length;
    typed ||= /\blang\s*=\s*["']tsx?["']/.test(attributes);
    script += blank(text.slice(end, found.index + whole.length));
    end = found.index + whole.length;
  }
  script += blank(text.slice(end));
  rest += text.slice(end);
  return { script, scriptPath: `${path}.${typed ? 'ts' : 'js'}`, rest: rest.replace(/\s+/g, ' ').trim() };
}

function blank(text: string): string {
  return text.replace(/[^\n]/g, ' ');
}
