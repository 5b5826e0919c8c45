import type { SFCDescriptor } from '@vue/compiler-sfc';
import { splitSingleFile } from '../single-file.ts';
import { componentTags } from '../template-imports.ts';
import type { Unimported } from '../unimported/unimported.ts';
import { importsOf, type Lacking, lackedBy } from '../unimported/weave.ts';
import { vueCompiler } from './compilers.ts';
import type { ComponentFile, ComponentStyle } from './types.ts';
import { vueMarkup } from './vue-markup.ts';

/** What builds put into the names of scoped styles; its length counts, not its letters. */
const SCOPE = 'data-v-7ba5bd90';

/**
 * Takes a Vue component apart and has it compiled as a production build does (public form of single-file components). What its build imports by
 * itself is imported by its script.
 */
export function vueFile(path: string, text: string, unimported?: Unimported): ComponentFile {
  const split = splitSingleFile(path, text);
  const lacking = unimported ? lackedBy(split.scriptPath, split.script, unimported, split.markup) : [];
  const descriptor = takenApart(path, text);
  const { template, styles } = descriptor;
  const scriptPath = `${path}.${languageOf(descriptor)}`;
  const hasAst = template?.ast && (!template.lang || template.lang === 'html');
  const drawn = hasAst ? vueMarkup(template.ast!) : null;
  const { code, told } = compiled(withImports(path, text, descriptor, lacking), path, lacking);
  return {
    ...{
      script: split.script + importsOf(lacking),
      scriptPath,
      markup: split.markup,
      drawn,
      bindings: new Map(),
      told,
    },
    compiled: code,
    rest: code === null ? (template?.content ?? '').split(/\s+/).join(' ') : '',
    styles: styles.map((s) => styleOf(s, path)),
  };
}

function takenApart(path: string, text: string): SFCDescriptor {
  const compiler = vueCompiler();
  // It keeps what it parsed by text, and compiling changes that: the same file read once more would draw otherwise.
  compiler.parseCache.clear();
  return compiler.parse(text, { filename: path, sourceMap: false, ignoreEmpty: true }).descriptor;
}

/** A component whose script has these imports too. */
function withImports(
  path: string,
  text: string,
  descriptor: SFCDescriptor,
  lacking: readonly Lacking[],
): SFCDescriptor {
  if (lacking.length === 0) return descriptor;
  const imports = `\n${importsOf(lacking)}\n`;
  const at = (descriptor.scriptSetup ?? descriptor.script)?.loc.end.offset;
  const more =
    at === undefined
      ? `${text}\n<script>${imports}export default {};\n</script>`
      : text.slice(0, at) + imports + text.slice(at);
  return takenApart(path, more);
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
function compiled(
  descriptor: SFCDescriptor,
  path: string,
  lacking: readonly Lacking[],
): Pick<ComponentFile, 'told'> & { code: string | null } {
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
      code += `\n${found(render, lacking).replace('export function render', 'function render')}\ncomponent.render = render;`;
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

/** What a template looks up by name while it is drawn is the import, where its build imports it. */
function found(render: string, lacking: readonly Lacking[]): string {
  if (lacking.length === 0) return render;
  return render.replace(/_resolveComponent\("([\w-]+)"(?:, true)?\)/g, (whole, tag: string) => {
    const [name] = componentTags(`<${tag}`);
    return lacking.some((l) => l.as === name) ? name : whole;
  });
}
