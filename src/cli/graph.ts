import type { Command } from 'commander';
import { studied } from '../core/formats/project-file.ts';
import { effectivePlan } from '../core/plan/effective.ts';
import { planNamed, readProject } from './files.ts';
import { print } from './output.ts';

export function addGraph(program: Command): void {
  program
    .command('graph')
    .description('the imports as a plan makes them: static or deferred')
    .argument('<file>', 'project file')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .action((file: string, options: { plan?: string }, command: Command) => {
      const project = readProject(file);
      const plan = planNamed(project, options.plan);
      const snapshot = studied(project, plan);
      const { deferred } = effectivePlan(snapshot, plan);
      const path = (m: number) => snapshot.modules[m].path;
      const result = {
        modules: snapshot.modules.map(({ path, kind, package: name, bytes }) => ({
          path,
          kind,
          package: name,
          bytes: { source: bytes.source, minified: bytes.minified, gzip: bytes.gzip },
        })),
        imports: snapshot.imports.map((item, i) => ({
          from: path(item.from),
          to: path(item.to),
          kind: deferred[i] ? 'dynamic' : 'static',
          specifier: item.specifier,
          line: item.line,
        })),
        entries: [
          ...snapshot.entries.map(({ realm, modules }) => ({ realm, route: null as string | null, modules })),
          ...snapshot.routes.map(({ realm, pattern, layouts, page }) => ({
            realm,
            route: pattern,
            modules: [...layouts, page],
          })),
        ],
      };
      print(command, result, () =>
        result.imports.map((i) => `${i.kind === 'dynamic' ? '⇢' : '→'} ${i.from}:${i.line}  ${i.to}`),
      );
    });
}
