import path from 'node:path';
import { textIfThere } from '../folder-files.ts';
import type { FoundImport } from '../found-import.ts';
import type { Resolver } from '../resolve.ts';
import { compileSheet, type SheetFiles } from '../sheets/compile-sheet.ts';
import { fontsIn } from '../sheets/font-faces.ts';
import { minifyStyle } from '../weigh.ts';
import type { Findings } from './findings.ts';
import type { ReadModule } from './read-module.ts';

/** Follows an import that a file makes. */
export type Link = (file: string, found: FoundImport, kind: 'script' | 'style', from: ReadModule) => void;

/** Reads style sheets of all languages, and those inside of other files. */
export class StyleReader {
  private readonly files: SheetFiles;

  constructor(
    bounds: string,
    resolver: Resolver,
    private readonly findings: Findings,
    private readonly link: Link,
  ) {
    this.files = {
      read: (file) => textIfThere(bounds, file),
      resolve: (from, specifier) => {
        const found = resolver.resolve(from, specifier, 'style');
        return 'path' in found ? found.path : null;
      },
    };
  }

  /** Takes the text of a sheet into a module. `line`: where it begins in the module's file. */
  take(
    file: string,
    text: string,
    lang: string,
    into: ReadModule,
    { path, line }: { path: string; line: number },
  ): void {
    const compiled = compileSheet(lang, text, file, this.files);
    if ('error' in compiled) {
      const { message } = compiled.error;
      this.findings.failed.push({ path, line: line + compiled.error.line - 1, message });
      into.minified += withoutSpace(text);
      return;
    }
    const fonts = fontsIn(compiled.css);
    if (fonts)
      into.fonts = into.fonts
        ? { faces: [...into.fonts.faces, ...fonts.faces], ofText: [...into.fonts.ofText, ...fonts.ofText] }
        : fonts;
    try {
      const { code, imports, urls } = minifyStyle(path, compiled.css);
      into.minified += code;
      const files = urls.filter((u) => !/^(data:|#|https?:|\/\/)/.test(u.specifier));
      for (const { specifier, line } of [...imports, ...files])
        this.link(file, styleImport(specifier, line), 'style', into);
    } catch (error) {
      const { message, loc } = error as Error & { loc?: { line: number } };
      this.findings.failed.push({ path, line: line + (loc?.line ?? 1) - 1, message });
      into.minified += compiled.css;
    }
  }

  /** What a sheet weighs inside of a script that takes its text in. */
  insideScript(file: string, text: string, relative: string): string {
    const compiled = compileSheet(path.extname(file).slice(1), text, file, this.files);
    if ('error' in compiled) this.findings.failed.push({ path: relative, ...compiled.error });
    const css = 'css' in compiled ? compiled.css : text;
    try {
      return JSON.stringify(minifyStyle(relative, css).code);
    } catch {
      return JSON.stringify(withoutSpace(css));
    }
  }
}

/** An import that a sheet makes, or that leads to one. */
export function styleImport(specifier: string, line: number): FoundImport {
  return { kind: 'static', specifier, names: [], line, column: 1, start: line, end: line };
}

function withoutSpace(text: string): string {
  return text.split(/\s+/).join(' ');
}
