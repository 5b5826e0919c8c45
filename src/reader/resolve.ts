import fs from 'node:fs';
import path from 'node:path';
import { ResolverFactory } from 'oxc-resolver';

export type Resolution = { path: string } | { reason: string };

const EXTENSIONS = ['.tsx', '.ts', '.jsx', '.js', '.mts', '.mjs', '.cjs', '.json', '.css'];

/** Resolves specifiers by the platform's rules, and never out of the folder that is read. */
export class Resolver {
  private readonly scripts: ResolverFactory;
  private readonly styles: ResolverFactory;

  constructor(private readonly root: string) {
    const config = path.join(root, 'tsconfig.json');
    const common = {
      extensions: EXTENSIONS,
      extensionAlias: { '.js': ['.ts', '.tsx', '.js'], '.jsx': ['.tsx', '.jsx'], '.mjs': ['.mts', '.mjs'] },
      mainFields: ['browser', 'module', 'main'],
      aliasFields: [['browser']],
      builtinModules: true,
      ...(fs.existsSync(config) ? { tsconfig: { configFile: config, references: 'auto' as const } } : {}),
    };
    this.scripts = new ResolverFactory({
      ...common,
      conditionNames: ['browser', 'import', 'module', 'production', 'default'],
    });
    this.styles = new ResolverFactory({
      ...common,
      conditionNames: ['style', 'browser', 'default'],
      extensions: ['.css'],
      mainFields: ['style', 'main'],
    });
  }

  /** Resolves a specifier as written in a file (absolute path). */
  resolve(from: string, specifier: string, kind: 'script' | 'style'): Resolution {
    if (/^(https?:)?\/\//.test(specifier)) return { reason: 'an address on the network is not followed' };
    const plain = specifier.replace(/[?#].*$/, '');
    if (plain === '') return { reason: 'the specifier is empty' };
    const found = this.lookUp(path.dirname(from), plain, kind);
    if (found.builtin) return { reason: 'a module of the server platform, which a browser doesn’t have' };
    if (!found.path) return { reason: tidy(found.error ?? 'not found', this.root) };
    return this.inside(found.path) ? { path: found.path } : { reason: 'it lies outside the folder that was read' };
  }

  /** In styles a bare name is a file beside first, and a package second. */
  private lookUp(folder: string, specifier: string, kind: 'script' | 'style') {
    const resolver = kind === 'style' ? this.styles : this.scripts;
    const rooted = specifier.startsWith('/') ? path.join(this.root, specifier) : specifier;
    const beside = kind === 'style' && !/^[./@]/.test(specifier) ? resolver.sync(folder, `./${specifier}`) : null;
    return beside?.path ? beside : resolver.sync(folder, rooted);
  }

  private inside(file: string): boolean {
    const relative = path.relative(this.root, fs.realpathSync(file));
    return !relative.startsWith('..') && !path.isAbsolute(relative);
  }
}

/** The resolver's words without paths of this machine. */
function tidy(message: string, root: string): string {
  return message.replaceAll(`${root}${path.sep}`, '').replaceAll(root, '.');
}
