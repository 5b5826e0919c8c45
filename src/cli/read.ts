import { type Command, Option } from 'commander';
import { NO_AMENDMENTS } from '../core/amend/types.ts';
import { PROJECT_FORMAT, PROJECT_VERSION } from '../core/formats/project-file.ts';
import { checkBase } from '../core/snapshot/base.ts';
import { READ_AS, type ReadAs } from '../core/snapshot/read-as.ts';
import { alignedKilobytes } from '../core/text/amounts.ts';
import { saveProject } from './files.ts';
import { print } from './output.ts';
import { readFolder, STARTS, WORKSPACE, workspaceFrom } from './reading.ts';

export function addRead(program: Command): void {
  program
    .command('read')
    .description('read an app’s sources, or what a production build made of them, into a project file')
    .argument('<folder>', 'folder with index.html or package.json, or the folder that is deployed')
    .option('--out <file>', 'where to write the project file')
    .addOption(new Option('--as <what>', 'what the folder holds').choices(READ_AS).default(READ_AS[0]))
    .option('--base <address>', 'base address of an output, where the proposed one is wrong')
    .option(...WORKSPACE)
    .option(...STARTS)
    .action(
      async (
        folder: string,
        options: { out?: string; as: ReadAs; base?: string; workspace?: string; start?: string[] },
        command: Command,
      ) => {
        const base = options.base === undefined ? {} : { base: checkBase(options.base, '--base') };
        const { snapshot, texts, sources, ms } = await readFolder(folder, {
          as: options.as,
          ...base,
          ...workspaceFrom(options),
          starts: options.start,
        });
        if (options.out) {
          const head = { format: PROJECT_FORMAT, version: PROJECT_VERSION } as const;
          saveProject(options.out, { ...head, snapshot, plans: [], amendments: NO_AMENDMENTS, texts, sources });
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
          origin: snapshot.origin,
          base: snapshot.base,
          notices: snapshot.notices,
          ms: Math.round(ms),
        };
        print(command, result, () => [
          `${snapshot.name}: ${result.modules} modules, ${result.imports.static} static and ${dynamic} deferred imports, ${result.packages} packages`,
          `${alignedKilobytes(bytes.source)} source, ${alignedKilobytes(bytes.minified)} minified, ${alignedKilobytes(bytes.gzip)} gzip, ${alignedKilobytes(bytes.brotli)} brotli`,
          ...result.routes.map((r) => `  ${r.pattern}  ${r.page}`),
          ...snapshot.unresolved.map(
            (u) => `${u.leftOut ? 'left out' : 'unresolved'}: ${u.from}:${u.line} ${u.specifier} (${u.reason})`,
          ),
          ...snapshot.failed.map((f) => `failed: ${f.path}:${f.line} ${f.message}`),
          ...snapshot.notices.map((n) => `${n.kind}: ${n.path || 'the files'} ${n.message}`),
        ]);
      },
    );
}
