import { minifySync } from 'oxc-minify';
import { transformSync } from 'oxc-transform';
import type { FoundImport } from '../found-import.ts';
import { isSolid, mayHoldMarkup } from '../templates/solid.ts';
import type { Compiling } from './compiling.ts';
import { hasDecorators, withHelpers } from './decorators.ts';
import { asksEnvironment, environmentOf } from './environment.ts';
import { throughBabel } from './through-babel.ts';

export type Language = 'ts' | 'tsx' | 'js' | 'jsx';

/** Whether a script is plain JavaScript that no build changes before it is made small. */
export function shipsAsWritten(path: string, text: string): boolean {
  if (!/\.[cm]?js$/.test(path)) return false;
  return !asksEnvironment(text) && !/<[A-Za-z/>]/.test(text);
}

/** What may be decorators: whether they are, only the compiler tells. */
const DECORATED = /(?:^|[\s;{}()])@[A-Za-z_$(]/;

/** A script as it ships, and what its compilers say where they can't compile it. */
export interface Shipped {
  code: string;
  refused: string | null;
}

/**
 * Types, decorators and markup syntax compiled away; where the build kind is asked for, as the production build answers. What the compilers of decorators and
 * of Solid refuse is compiled without them.
 */
export function shippedCode(
  path: string,
  text: string,
  lang: Language,
  compiling: Compiling,
  usedElsewhere: boolean,
): Shipped {
  const isTyped = lang !== 'js' && lang !== 'jsx';
  const fields = isTyped && compiling.assignsFields;
  const importSource = lang === 'ts' ? '' : markupSource(text, compiling.jsxImportSource);
  const isOwn = !path.includes('node_modules/');
  const mayDecorate = isOwn && text.includes('@') && DECORATED.test(text);
  const plainly = (keepsMarkup: boolean) =>
    transformSync(path, text, {
      lang,
      jsx: keepsMarkup ? 'preserve' : { runtime: 'automatic', ...(importSource === '' ? {} : { importSource }) },
      typescript: { onlyRemoveTypeImports: usedElsewhere, removeClassFieldsWithoutInitializer: fields },
      ...(fields ? { assumptions: { setPublicClassFields: true } } : {}),
      ...(mayDecorate && compiling.oldDecorators ? { decorator: { legacy: true } } : {}),
      ...(asksEnvironment(text) ? { define: environmentOf(isOwn, text, compiling.told ?? {}) } : {}),
    }).code;
  const solid = isSolid(importSource) && mayHoldMarkup(text);
  const compiled = plainly(solid);
  const code = mayDecorate && compiling.oldDecorators ? withHelpers(compiled) : compiled;
  const decorators = mayDecorate && !compiling.oldDecorators && hasDecorators(code);
  if (!solid && !decorators) return { code, refused: null };
  const made = throughBabel(path, code, { solid, decorators });
  return made.code === null ? { code: plainly(false), refused: made.said } : { code: made.code, refused: null };
}

/** Where the markup of one file gets its functions from: as a comment of its own says (convention of the compilers of markup), else as the app does. */
function markupSource(text: string, ofApp: string): string {
  return /@jsxImportSource[^\S\n]{1,9}([\w@./-]{1,200})/.exec(text)?.[1] ?? ofApp;
}

/** Imports without the requires and deferred ones that only a branch for development or the server makes. */
export function withoutDeadImports(written: string, imports: readonly FoundImport[]): FoundImport[] {
  const { code } = minifySync('out.js', written, { compress: true, mangle: false });
  return imports.filter((i) => (i.kind === 'static' && !i.required) || asksFor(code, i.specifier));
}

/** Whether minified code has a specifier in a call: as a text in any quotation marks. */
export function asksFor(code: string, specifier: string): boolean {
  return [JSON.stringify(specifier), `'${specifier}'`, `\`${specifier}\``].some((written) => code.includes(written));
}

/** The language of a script by the ending of its name. */
export function languageOf(path: string): Language {
  if (/\.[mc]?ts$/.test(path)) return 'ts';
  if (path.endsWith('.tsx')) return 'tsx';
  return 'jsx';
}
