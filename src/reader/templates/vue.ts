import type { SFCDescriptor } from '@vue/compiler-sfc';
import { splitSingleFile } from '../single-file.ts';
import { vueCompiler } from './compilers.ts';
import type { ComponentFile, ComponentStyle } from './types.ts';
import { vueMarkup } from './vue-markup.ts';

/** What builds put into the names of scoped styles; its length counts, not its letters. */
const SCOPE = 'data-v-7ba5bd90';

/** Takes a Vue component apart and has it compiled as a production build does (public form of single-file components). */
export function vueFile(path: string, text: string): ComponentFile {
  const split = splitSingleFile(path, text);
  const compiler = vueCompiler();
  // It keeps what it parsed by text, and compiling changes that: the same file read once more would draw otherwise.
  compiler.parseCache.clear();
  const { descriptor } = compiler.parse(text, { filename: path, sourceMap: false, ignoreEmpty: true });
  const { template, styles } = descriptor;
  const scriptPath = `${path}.${languageOf(descriptor)}`;
  const hasAst = template?.ast && (!template.lang || template.lang === 'html');
  const drawn = hasAst ? vueMarkup(template.ast!) : null;
  const { code, told } = compiled(descriptor, path);
  return {
    ...{ script: split.script, scriptPath, markup: split.markup, drawn, bindings: new Map(), told },
    compiled: code,
    rest: code === null ? (template?.content ?? '').split(/\s+/).join(' ') : '',
    styles: styles.map((s) => styleOf(s, path)),
  };
}

function languageOf({ script, scriptSetup }: SFCDescriptor): string {
  return (scriptSetup ?? script)?.lang ?? 'js';
}

function styleOf(style: SFCDescriptor['styles'][number], path: string): ComponentStyle {
  const lang = style.lang ?? 'css';
  const { line } = style.loc.start;
  if (!style.scoped || lang !== 'css') return { text: style.content, lang, src: style.src ?? null, line };
  const { code, errors } = vueCompiler().compileStyle({
    source: style.content,
    filename: path,
    id: SCOPE,
    scoped: true,
  });
  return { text: errors.length > 0 ? style.content : code, lang, src: style.src ?? null, line };
}

/** The component as one script: template inlined where the script is a setup, beside it otherwise. */
function compiled(descriptor: SFCDescriptor, path: string): Pick<ComponentFile, 'told'> & { code: string | null } {
  const compiler = vueCompiler();
  const { template, scriptSetup, script, styles } = descriptor;
  if (template?.lang && template.lang !== 'html')
    return {
      code: null,
      told: {
        line: template.loc.start.line,
        message: `templates in ${template.lang} aren’t read: it weighs as written`,
      },
    };
  try {
    const hasScript = script !== null || scriptSetup !== null;
    const made = hasScript
      ? compiler.compileScript(descriptor, {
          id: SCOPE,
          isProd: true,
          inlineTemplate: scriptSetup !== null,
          genDefaultAs: 'component',
        })
      : null;
    let code = made?.content ?? 'const component = {};';
    if (template && !scriptSetup) {
      const scoped = styles.some((s) => s.scoped);
      const { code: render, errors } = compiler.compileTemplate({
        ...{ source: template.content, filename: path, id: SCOPE, scoped, isProd: true },
        compilerOptions: made?.bindings ? { bindingMetadata: made.bindings } : {},
      });
      const [first] = errors;
      if (first) throw first;
      code += `\n${render.replace('export function render', 'function render')}\ncomponent.render = render;`;
    }
    const scope = styles.some((s) => s.scoped) ? `component.__scopeId = ${JSON.stringify(SCOPE)};` : '';
    return { code: `${code}\n${scope}\nexport default component;`, told: null };
  } catch (error) {
    const { message, loc } = error as Error & { loc?: { start?: { line: number } } };
    // Its own words span several lines, of which the first says it.
    const first = String(message).split('\n')[0];
    return {
      code: null,
      told: { line: loc?.start?.line ?? 1, message: `not compiled, it weighs as written: ${first}` },
    };
  }
}
