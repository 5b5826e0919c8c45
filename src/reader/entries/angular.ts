import fs from 'node:fs';
import path from 'node:path';
import { object } from '../../core/text/fields.ts';
import { parseJson } from '../../core/text/json.ts';
import { textIfThere } from '../folder-files.ts';
import { readHtml } from '../html-document.ts';
import type { FoundEntry, FoundStart } from './types.ts';

interface BuildOptions {
  browser?: unknown;
  main?: unknown;
  index?: unknown;
  polyfills?: unknown;
  styles?: unknown;
}

/** Apps whose workspace file names entry module, document, styles and polyfills of each (public form of `angular.json`). */
export function angularEntries(root: string): FoundEntry[] {
  const text = textIfThere(root, 'angular.json');
  if (text === null) return [];
  const { projects } = object(parseJson(text, 'angular.json'), 'angular.json');
  const apps = Object.entries(object(projects ?? {}, 'angular.json: projects')).flatMap(([name, project]) => {
    const options = optionsOf(project);
    const main = [options?.browser, options?.main].find((m) => typeof m === 'string');
    return options && main !== undefined && fs.existsSync(path.join(root, main)) ? [{ name, options, main }] : [];
  });
  return apps.map(({ name, options, main }) => {
    const document = indexOf(options);
    const html = document === null ? null : textIfThere(root, document);
    const start = (address: string, kind: 'script' | 'style'): FoundStart => ({
      ...{
        address: /^[./]/.test(address) || fs.existsSync(path.join(root, address)) ? `/${address}` : address,
        line: 1,
        kind,
      },
      imported: true,
    });
    return {
      realm: apps.length > 1 ? name : 'site',
      document: html === null ? null : document,
      html: html === null ? null : readHtml(html),
      starts: [
        ...listOf(options.styles).map((s) => start(s, 'style')),
        ...listOf(options.polyfills).map((p) => start(p, 'script')),
        start(main, 'script'),
      ],
      ...{ routes: [], rendering: 'client', ships: 'everything' },
    };
  });
}

function optionsOf(project: unknown): BuildOptions | null {
  const { architect, targets } = (project ?? {}) as { architect?: unknown; targets?: unknown };
  const build = ((architect ?? targets ?? {}) as { build?: { options?: BuildOptions } }).build;
  return build?.options ?? null;
}

function indexOf({ index }: BuildOptions): string | null {
  if (typeof index === 'string') return index;
  const { input } = (index ?? {}) as { input?: unknown };
  return typeof input === 'string' ? input : null;
}

function listOf(value: unknown): string[] {
  return (Array.isArray(value) ? value : [value]).flatMap((v) => {
    if (typeof v === 'string') return [v];
    const { input, inject } = (v ?? {}) as { input?: unknown; inject?: unknown };
    return typeof input === 'string' && inject !== false ? [input] : [];
  });
}
