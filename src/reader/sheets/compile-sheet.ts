import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { lessCompiler, sassCompiler } from '../templates/compilers.ts';

/** Where the files are that a sheet asks for; both give null for what isn't there or mustn't be read. */
export interface SheetFiles {
  /** The text of a file (absolute path). */
  read: (file: string) => string | null;
  /** Where a bare name leads, from a file: a package's file, or one that an alias names. */
  resolve: (from: string, specifier: string) => string | null;
}

export type CompiledSheet = { css: string } | { error: { line: number; message: string } };

/** Languages that a build compiles to style sheets, by the endings of their files. */
export const SHEET_LANGUAGE = /\.(scss|sass|less)$/;

/**
 * Compiles a sheet of another language by the language's own compiler, with all that it asks for in the same folder tree. Nothing else is read,
 * and no code of the app is run: plug-ins and scripts inside of sheets are refused. Gives its text as it is for plain CSS.
 */
export function compileSheet(lang: string, text: string, file: string, files: SheetFiles): CompiledSheet {
  if (lang === 'css' || lang === 'postcss') return { css: text };
  if (lang === 'scss' || lang === 'sass') return compileSass(lang, text, file, files);
  if (lang === 'less') return compileLess(text, file, files);
  return { error: { line: 1, message: `styles in ${lang} aren’t compiled here: they count as written` } };
}

function compileSass(lang: string, text: string, file: string, files: SheetFiles): CompiledSheet {
  const importer = {
    canonicalize: (address: string, { containingUrl }: { containingUrl: URL | null }) => {
      const from = containingUrl ? fileURLToPath(containingUrl) : file;
      const wanted = address.startsWith('file:') ? fileURLToPath(address) : address;
      const found = findSass(wanted, from, files);
      return found === null ? null : pathToFileURL(found);
    },
    load: (url: URL) => {
      const name = fileURLToPath(url);
      const contents = files.read(name);
      return contents === null ? null : { contents, syntax: syntaxOf(name) };
    },
  };
  try {
    const { css } = sassCompiler().compileString(text, {
      ...{ syntax: lang === 'sass' ? 'indented' : 'scss', url: pathToFileURL(file), importer, importers: [importer] },
      logger: { warn: () => {}, debug: () => {} },
    });
    return { css };
  } catch (error) {
    const { sassMessage, span, message } = error as {
      sassMessage?: string;
      span?: { start: { line: number } };
      message: string;
    };
    return { error: { line: (span?.start.line ?? 0) + 1, message: notCompiled(sassMessage ?? message) } };
  }
}

const syntaxOf = (file: string) =>
  (file.endsWith('.sass') ? 'indented' : file.endsWith('.css') ? 'css' : 'scss') as 'scss';

/** A file by the language's rules: with its ending or without, with `_` before its name, or the index of a folder. */
function findSass(wanted: string, from: string, files: SheetFiles): string | null {
  const bare = wanted.replace(/^~/, '');
  const places = path.isAbsolute(bare) ? [bare] : [path.resolve(path.dirname(from), bare)];
  for (const place of places) {
    const found = candidates(place).find((c) => files.read(c) !== null);
    if (found) return found;
  }
  const direct = files.resolve(from, bare);
  if (direct !== null) return direct;
  // Of a package only the folder is known; the file in it follows the same rules.
  const named = /^((?:@[^/]+\/)?[^/]+)\/(.+)$/.exec(bare);
  const description = named && files.resolve(from, `${named[1]}/package.json`);
  if (!description) return null;
  return candidates(path.join(path.dirname(description), named[2])).find((c) => files.read(c) !== null) ?? null;
}

function candidates(place: string): string[] {
  const folder = path.dirname(place);
  const name = path.basename(place);
  const endings = /\.(scss|sass|css)$/.test(name) ? [''] : ['.scss', '.sass', '.css'];
  const named = endings.flatMap((e) => [path.join(folder, `${name}${e}`), path.join(folder, `_${name}${e}`)]);
  const index = ['.scss', '.sass', '.css'].flatMap((e) => [
    path.join(place, `_index${e}`),
    path.join(place, `index${e}`),
  ]);
  return [...named, ...index];
}

function compileLess(text: string, file: string, files: SheetFiles): CompiledSheet {
  const less = lessCompiler();
  class InFolder extends less.FileManager {
    override supports(): boolean {
      return true;
    }
    override supportsSync(): boolean {
      return true;
    }
    override loadFileSync(name: string, folder: string) {
      const from = path.join(folder === '' ? path.dirname(file) : folder, 'sheet.less');
      const bare = name.replace(/^~/, '');
      const place = path.resolve(path.dirname(from), bare);
      const tried = [place, `${place}.less`, files.resolve(from, bare), files.resolve(from, `${bare}.less`)];
      for (const one of tried) {
        const contents = one === null ? null : files.read(one);
        if (contents !== null) return { filename: one!, contents };
      }
      return { error: { message: `${name} can’t be found` } } as never;
    }
  }
  const plugin = {
    install: (_: unknown, manager: { addFileManager(m: unknown): void }) => manager.addFileManager(new InFolder()),
  };
  let result: CompiledSheet = { error: { line: 1, message: notCompiled('its compiler gave nothing') } };
  const options = {
    filename: file,
    syncImport: true,
    javascriptEnabled: false,
    disablePluginRule: true,
    plugins: [plugin],
  };
  try {
    less.render(text, options, (error, output) => {
      if (output) result = { css: output.css };
      else result = { error: { line: error?.line ?? 1, message: notCompiled(error?.message ?? '') } };
    });
  } catch (error) {
    if (error instanceof RangeError) throw error;
    result = { error: { line: 1, message: notCompiled(String((error as Error).message)) } };
  }
  return result;
}

function notCompiled(why: string): string {
  return `not compiled, it counts as written: ${why.split('\n')[0]}`;
}
