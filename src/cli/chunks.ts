import type { Command } from 'commander';
import { membersOf } from '../core/chunks/bits.ts';
import { planned } from '../core/chunks/planned.ts';
import type { Chunk } from '../core/chunks/types.ts';
import { InputError } from '../core/errors.ts';
import { type ProjectFile, studied } from '../core/formats/project-file.ts';
import { withDecision } from '../core/plan/decisions.ts';
import { troublesOf } from '../core/ship/shipped.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { alignedKilobytes } from '../core/text/amounts.ts';
import { counted } from '../core/text/counted.ts';
import { exactSizes } from '../reader/weigh.ts';
import { planNamed, readProject } from './files.ts';
import { columns, print } from './output.ts';
import { type ShapeOptions, shapesOf, withShapeOptions } from './shaping.ts';

export function addChunks(program: Command): void {
  const command = program
    .command('chunks')
    .description('the chunks that a plan produces, and what each root needs')
    .argument('<file>', 'project file')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .option('--exact', 'compress the real text instead of estimating');
  withShapeOptions(command).action(
    (file: string, options: ShapeOptions & { plan?: string; exact?: boolean }, command: Command) => {
      const project = readProject(file);
      const plan = shapesOf(options).reduce(withDecision, planNamed(project, options.plan));
      const snapshot = studied(project, plan);
      const graph = planned(snapshot, plan).graph;
      const paths = (list: Iterable<number>) => [...list].map((m) => snapshot.modules[m].path);
      const result = {
        chunks: graph.chunks.map((chunk) => ({
          id: chunk.id,
          name: chunk.name,
          kind: chunk.kind,
          modules: paths(chunk.modules),
          bytes: options.exact ? exact(snapshot, project.texts, chunk) : sizes(chunk),
          overhead: chunk.overhead,
        })),
        roots: graph.roots.map((root) => ({
          id: root.id,
          kind: root.kind,
          realm: root.realm,
          target: paths(root.target),
          routes: root.routes,
          present: paths(membersOf(root.present)),
          need: paths(root.need),
          group: root.group.map((c) => graph.chunks[c].id),
        })),
        unreached: paths(graph.unreached),
        stale: troublesOf(studied(project), plan).stale,
      };
      print(command, result, () =>
        columns(
          result.chunks.map((c) => [
            c.name,
            c.kind,
            `${counted(c.modules.length, 'module')}`,
            alignedKilobytes(c.bytes.minified),
            alignedKilobytes(c.bytes.gzip),
          ]),
        ),
      );
    },
  );
}

function sizes({ bytes }: Chunk): { minified: number; gzip: number; brotli: number } {
  return { minified: bytes.minified, gzip: bytes.gzip, brotli: bytes.brotli };
}

/** Really compressed; a sheet that the plan trims is compressed whole and scaled, since its text still has all rules. */
function exact(
  snapshot: Snapshot,
  texts: ProjectFile['texts'],
  chunk: Chunk,
): { minified: number; gzip: number; brotli: number } {
  const all = chunk.modules.map((m) => {
    const { path } = snapshot.modules[m];
    const text = texts?.[path];
    if (text === undefined) {
      throw new InputError(
        'No text to compress',
        'The project file holds no minified text for this module; read the sources again.',
        path,
      );
    }
    return text;
  });
  const made = exactSizes(all);
  const minified = chunk.modules.reduce((sum, m) => sum + snapshot.modules[m].bytes.minified, 0);
  const share = chunk.kind === 'style' && made.minified > 0 ? Math.min(1, minified / made.minified) : 1;
  return {
    minified: Math.round(made.minified * share) + chunk.overhead.minified,
    gzip: Math.round(made.gzip * share) + chunk.overhead.gzip,
    brotli: Math.round(made.brotli * share) + chunk.overhead.gzip,
  };
}
