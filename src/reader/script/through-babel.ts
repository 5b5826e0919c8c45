import { babelCompiler, decoratorsPlugin, solidPreset } from '../templates/compilers.ts';

/** What of a script a compiler is to take away that isn't in use otherwise. */
export interface Wanted {
  /** Markup becomes what Solid's production build makes of it: templates that are cloned, and effects that fill them. */
  solid: boolean;
  /** Decorators of the standard, which no browser has yet. */
  decorators: boolean;
}

/** A script without types as the published compilers leave it; null, with what they say, where they can't compile it. */
export function throughBabel(
  path: string,
  code: string,
  { solid, decorators }: Wanted,
): { code: string | null; said: string } {
  try {
    const made = babelCompiler().transformSync(code, {
      ...{ filename: path, babelrc: false, configFile: false, browserslistConfigFile: false },
      ...{ compact: false, sourceMaps: false, highlightCode: false },
      // What is odd about the app's markup is nothing to print here.
      presets: solid ? [[solidPreset(), { generate: 'dom', validate: false }]] : [],
      plugins: decorators ? [[decoratorsPlugin(), { version: '2023-11' }]] : [],
    });
    return { code: made?.code ?? null, said: '' };
  } catch (error) {
    const [said] = String((error as Error).message).split('\n');
    return { code: null, said: said.replace(/^.{0,400}?: (?=\S)/, '') };
  }
}
