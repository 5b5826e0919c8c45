import type { Command } from 'commander';
import { PROJECT_FORMAT, PROJECT_VERSION } from '../core/formats/project-file.ts';
import { readSource } from '../reader/read-source.ts';
import { saveProject } from './files.ts';
import { kilobytes, print } from './output.ts';

export function addRead(program: Command): void {
  program
    .command('read')
    .description('read an app’s source tree into a project file')
    .argument('<folder>', 'folder with index.html or package.json')
    .option('--out <file>', 'where to write the project file')
    .action((folder: string, options: { out?: string }, command: Command) => {
      const { snapshot, texts, ms } = readSource(folder);
      if (options.out) {
        saveProject(options.out, { format: PROJECT_FORMAT, version: PROJECT_VERSION, snapshot, plans: [], texts });
      }
      const bytes = { source: 0, minified: 0, gzip: 0, brotli: 0 };
      for (const module of snapshot.modules) {
        for (const size of ['source', 'minified', 'gzip', 'brotli'] as const) bytes[size] += module.bytes[size];
      }
      const dynamic = snapshot.imports.filter((i) => i.kind === 'dynamic').length;
      const result = {
        modules: snapshot.modules.length,
        imports: { static: snapshot.imports.length - dynamic, dynamic },
        packages: snapshot.packages.length,
        bytes,
        routes: snapshot.routes.map(({ pattern, page, layouts }) => ({ pattern, page, layouts })),
        unresolved: snapshot.unresolved,
        failed: snapshot.failed,
        ms: Math.round(ms),
      };
      print(command, result, () => [
        `${snapshot.name}: ${result.modules} modules, ${result.imports.static} static and ${dynamic} deferred imports, ${result.packages} packages`,
        `${kilobytes(bytes.source)} source, ${kilobytes(bytes.minified)} minified, ${kilobytes(bytes.gzip)} gzip, ${kilobytes(bytes.brotli)} brotli`,
        ...result.routes.map((r) => `  ${r.pattern}  ${r.page}`),
        ...snapshot.unresolved.map((u) => `unresolved: ${u.from}:${u.line} ${u.specifier} (${u.reason})`),
        ...snapshot.failed.map((f) => `failed: ${f.path}:${f.line} ${f.message}`),
      ]);
    });
}
