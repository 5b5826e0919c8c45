import { splitSingleFile } from '../single-file.ts';
import { importsInMarkup } from '../template-imports.ts';
import { svelteCompiler } from './compilers.ts';
import { svelteMarkup } from './svelte-markup.ts';
import type { ComponentFile, ComponentStyle } from './types.ts';

const STYLE = /<style(?=[\s>])[^>]*>/;

/** Takes a Svelte component apart and has it compiled for the browser as a production build does. */
export function svelteFile(path: string, text: string): ComponentFile {
  const split = splitSingleFile(path, text);
  const style = styleIn(text);
  // Styles may be written in another language, which only their own compiler understands.
  const plain =
    style === null ? text : `${text.slice(0, style.from)}${style.text.replace(/[^\n]/g, ' ')}${text.slice(style.to)}`;
  const file = {
    ...{ script: split.script, scriptPath: split.scriptPath, markup: split.markup },
    imports: importsInMarkup(split.markup),
    styles: style === null ? [] : [{ text: style.text, lang: style.lang, src: null, line: style.line }],
  };
  try {
    const compiler = svelteCompiler();
    const ast = compiler.parse(plain, { modern: true, filename: path });
    const { root, bindings } = svelteMarkup(ast.fragment);
    const options = {
      generate: 'client',
      filename: path,
      dev: false,
      css: 'external',
      warningFilter: () => false,
    } as const;
    const { js } = compiler.compile(plain, options);
    return { ...file, drawn: root, bindings, compiled: js.code, rest: '', told: null };
  } catch (error) {
    const { message, start } = error as Error & { start?: { line: number } };
    const first = String(message).split('\n')[0];
    return {
      ...file,
      ...{ drawn: null, bindings: new Map(), compiled: null, rest: split.rest },
      told: { line: start?.line ?? 1, message: `not compiled, it weighs as written: ${first}` },
    };
  }
}

function styleIn(text: string): (Omit<ComponentStyle, 'src'> & { from: number; to: number }) | null {
  const opens = STYLE.exec(text);
  if (!opens) return null;
  const from = opens.index + opens[0].length;
  const to = text.indexOf('</style', from);
  if (to < 0) return null;
  const lang = /\blang\s{0,9}=\s{0,9}["']?(\w{1,20})/.exec(opens[0])?.[1] ?? 'css';
  return { text: text.slice(from, to), lang, from, to, line: text.slice(0, from).split('\n').length };
}
