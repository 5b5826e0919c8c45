import type { Command } from 'commander';
import { carriedRows } from '../core/chunks/carried-rows.ts';
import { studied } from '../core/formats/project-file.ts';
import { alignedKilobytes } from '../core/text/amounts.ts';
import { planNamed, readProject, routeNamed } from './files.ts';
import { columns, print } from './output.ts';

export function addCarried(program: Command): void {
  program
    .command('carried')
    .description('what would leave a route’s start if an import were detached')
    .argument('<file>', 'project file')
    .requiredOption('--route <pattern>', 'route to land on')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .action((file: string, options: { route: string; plan?: string }, command: Command) => {
      const project = readProject(file);
      const plan = planNamed(project, options.plan);
      const snapshot = studied(project, plan);
      const route = routeNamed(snapshot, options.route);
      const result = { route: route.pattern, ...carriedRows(snapshot, plan, route) };
      print(command, result, () => [
        `${route.pattern}: ${alignedKilobytes(result.startBytes)} minified at start`,
        ...columns(
          result.imports
            .filter((i) => i.leaves > 0)
            .map((i) => [`${i.from}:${i.line}`, i.to, alignedKilobytes(i.own), alignedKilobytes(i.leaves)]),
        ),
      ]);
    });
}
