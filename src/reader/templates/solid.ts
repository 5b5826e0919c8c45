import { babelCompiler, solidPreset } from './compilers.ts';

/** Whether markup is compiled for Solid, by the package that its functions come from (`solid-js`, and ways into it). */
export function isSolid(markupSource: string): boolean {
  return /^solid-js(\/|$)/.test(markupSource);
}

/** Any markup: an element, or a fragment. */
const MARKUP = /<(?:[A-Za-z_$]|>)/;

/**
 * Scripts with markup as Solid's production build leaves them: templates that are cloned, and effects that fill them. `code`: without types,
 * with its markup still in it. What can't be compiled stays as it is.
 */
export function solidCode(path: string, code: string): string {
  if (!MARKUP.test(code)) return code;
  const made = babelCompiler().transformSync(code, {
    ...{ filename: path, babelrc: false, configFile: false, browserslistConfigFile: false },
    ...{ compact: false, sourceMaps: false, highlightCode: false },
    presets: [[solidPreset(), { generate: 'dom' }]],
  });
  return made?.code ?? code;
}
