/**
 * The published compilers of templates and style languages, pinned as packages of our own; each loaded when a file asks for it first. The
 * app's own copies and its configuration are never run.
 */
const load = process.getBuiltinModule('node:module').createRequire(import.meta.url);

function once<T>(name: string): () => T {
  let found: T | undefined;
  return () => {
    found ??= load(name) as T;
    return found;
  };
}

export const vueCompiler = once<typeof import('@vue/compiler-sfc')>('@vue/compiler-sfc');
export const svelteCompiler = once<typeof import('svelte/compiler')>('svelte/compiler');
export const angularCompiler = once<typeof import('@angular/compiler')>('@angular/compiler');
/** What Solid's markup becomes: its compiler is a preset of another one. */
export const babelCompiler = once<typeof import('@babel/core')>('@babel/core');
export const solidPreset = once<import('@babel/core').PluginTarget>('babel-preset-solid');
export const decoratorsPlugin = once<import('@babel/core').PluginTarget>('@babel/plugin-proposal-decorators');
export const sassCompiler = once<typeof import('sass')>('sass');
/** What is used of the compiler of Less, which has no types of its own. */
export interface LessCompiler {
  FileManager: new () => {
    supports(): boolean;
    supportsSync(): boolean;
    loadFileSync(name: string, folder: string): { filename: string; contents: string };
  };
  render(
    text: string,
    options: Record<string, unknown>,
    done: (error: { message: string; line?: number } | null, output?: { css: string }) => void,
  ): void;
}

export const lessCompiler = once<LessCompiler>('less');

/** The version of one of them, to be laid beside that of the app. */
export function compilerVersion(name: string): string {
  return (load(`${name}/package.json`) as { version: string }).version;
}
