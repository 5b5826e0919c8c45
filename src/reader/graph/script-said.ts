import { digestOf, remembered } from '../memory/memory.ts';
import { servicesOf } from '../parts/find-parts.ts';
import type { Compiling } from '../script/compiling.ts';
import { parseScript } from '../script/parse-script.ts';
import type { ParsedScript } from '../script/parsed-script.ts';
import { marked } from '../server-only.ts';
import type { ResourceReader } from '../templates/angular.ts';
import { componentFile } from '../templates/component-file.ts';
import type { ComponentFile } from '../templates/types.ts';
import { importsOf, lackedBy, mayMean } from '../unimported/weave.ts';
import { withoutExports } from '../without-exports.ts';
import type { ReadModule } from './read-module.ts';

/** What of a component in one file stands beside its script. */
export type OutsideOfScript = Pick<ComponentFile, 'rest' | 'told' | 'imports' | 'markup' | 'styles'>;

/** What the text of a script, or of a component in one file, says. */
export interface ScriptSaid extends Pick<ReadModule, 'marked' | 'serves'> {
  component: OutsideOfScript | null;
  parsed: ParsedScript;
  /** Files that the description of a component names, with what they held. */
  named: { specifier: string; digest: string | null }[];
}

/** What else than its text decides about a script. */
export interface AroundScript {
  compiling: Compiling;
  /** Names that stand for components in templates, with where they come from. */
  bindings: ReadonlyMap<string, string>;
  /** Exports that aren't shipped. */
  without: readonly string[];
  resource: ResourceReader;
}

/** What the text of a script says; as an earlier reading found it, where nothing that it rests on is another one. Throws RangeError for one that nests too deeply. */
export function scriptSaid(path: string, text: string, around: AroundScript): ScriptSaid {
  const { bindings, without, resource } = around;
  const compiling = compilingFor(path, text, around.compiling);
  const names = bindings.size === 0 ? '' : digestOf(JSON.stringify([...bindings]));
  return remembered(
    'script',
    [path, JSON.stringify(compiling), without.join(), names, text],
    () => said(path, text, { ...around, compiling }),
    ({ named }) =>
      named.every(({ specifier, digest }) => {
        const found = resource(specifier);
        return digest === (found && digestOf(found.text));
      }),
  );
}

/** How one text is compiled: of what the build imports by itself only what it may mean, so that others that come or go change nothing about it. */
function compilingFor(path: string, text: string, compiling: Compiling): Compiling {
  const { unimported, ...all } = compiling;
  if (unimported === undefined) return compiling;
  const may = path.includes('node_modules/') ? undefined : mayMean(text, unimported);
  return may === undefined ? all : { ...all, unimported: may };
}

function said(path: string, text: string, { compiling, bindings, without, resource }: AroundScript): ScriptSaid {
  const named: ScriptSaid['named'] = [];
  const { unimported } = compiling;
  const component = componentFile(path, text, unimported);
  const script = component?.script ?? (without.length > 0 ? withoutExports(path, text, without) : text);
  const lacked = unimported && !component ? lackedBy(path, script, unimported) : [];
  const parsed = parseScript(
    component?.scriptPath ?? path,
    `${script}${lacked.length > 0 ? `\n${importsOf(lacked)}` : ''}`,
    {
      ...compiling,
      usedElsewhere: component !== null,
      compiled: component?.compiled,
      drawn: component?.drawn,
      bindings: component === null ? bindings : new Map([...bindings, ...component.bindings]),
      resource: (specifier) => {
        const found = resource(specifier);
        named.push({ specifier, digest: found && digestOf(found.text) });
        return found;
      },
    },
  );
  return {
    ...{ component: component && outsideOfScript(component), parsed, named },
    ...{ marked: marked(text), serves: servicesOf(path, text) },
  };
}

function outsideOfScript({ rest, told, imports, markup, styles }: ComponentFile): OutsideOfScript {
  return { rest, told, imports, markup, styles };
}
