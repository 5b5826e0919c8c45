/** Components written in one file: script blocks beside a template and styles, or statements in a text. */
const SINGLE_FILE = /\.(vue|svelte|astro|mdx)$/;
const OPENS = '<script';
const CLOSES = '</script>';

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
  /** The same with its places: everything else blanked. */
  markup: string;
}

/** Takes a single-file component apart. */
export function splitSingleFile(path: string, text: string): SingleFile {
  if (path.endsWith('.mdx')) return splitText(path, text);
  let script = '';
  let rest = '';
  let markup = '';
  let end = 0;
  let typed = false;
  for (const { from, bodyFrom, bodyTo } of scriptBlocks(text)) {
    script += blank(text.slice(end, bodyFrom)) + text.slice(bodyFrom, bodyTo);
    rest += text.slice(end, from);
    markup += text.slice(end, from);
    markup += blank(text.slice(from, bodyTo + CLOSES.length));
    typed ||= /\blang\s*=\s*["']tsx?["']/.test(text.slice(from, bodyFrom));
    end = bodyTo + CLOSES.length;
    script += blank(text.slice(bodyTo, end));
  }
  script += blank(text.slice(end));
  rest += text.slice(end);
  markup += text.slice(end);
  const scriptPath = `${path}.${typed ? 'ts' : 'js'}`;
  return { script, scriptPath, rest: rest.split(/\s/).filter(Boolean).join(' '), markup };
}

/** Takes statements out of a text (MDX): from a line that begins with one to the next empty line, outside of code. */
function splitText(path: string, text: string): SingleFile {
  const script: string[] = [];
  const rest: string[] = [];
  let inScript = false;
  let fence = '';
  for (const line of text.split('\n')) {
    const mark = /^(`{3,}|~{3,})/.exec(line)?.[1] ?? '';
    if (mark !== '' && (fence === '' || mark.startsWith(fence))) fence = fence === '' ? mark : '';
    inScript = fence === '' && line.trim() !== '' && (inScript || /^(import|export)\b/.test(line));
    script.push(inScript ? line : blank(line));
    if (!inScript) rest.push(line);
  }
  return {
    script: script.join('\n'),
    scriptPath: `${path}.jsx`,
    rest: rest.join(' ').split(/\s/).filter(Boolean).join(' '),
    markup: text,
  };
}

/** Script blocks by their places; one that isn't closed is none. */
function* scriptBlocks(text: string): Generator<{ from: number; bodyFrom: number; bodyTo: number }> {
  let at = 0;
  for (;;) {
    const from = text.indexOf(OPENS, at);
    if (from < 0) return;
    at = from + OPENS.length;
    if (/[\w-]/.test(text[at] ?? '')) continue;
    const bodyFrom = text.indexOf('>', at) + 1;
    const bodyTo = bodyFrom === 0 ? -1 : text.indexOf(CLOSES, bodyFrom);
    if (bodyTo < 0) return;
    yield { from, bodyFrom, bodyTo };
    at = bodyTo + CLOSES.length;
  }
}

function blank(text: string): string {
  return text
    .split('\n')
    .map((line) => ' '.repeat(line.length))
    .join('\n');
}
