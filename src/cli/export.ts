import fs from 'node:fs';
import type { Command } from 'commander';
import { InputError } from '../core/errors.ts';
import { readFileMap } from '../core/formats/file-map.ts';
import { landingHar } from '../core/formats/landing-har.ts';
import { writePlanFile } from '../core/formats/plan-file.ts';
import { type ProjectFile, studied } from '../core/formats/project-file.ts';
import type { FileMap } from '../core/handoff/addresses.ts';
import { handoff } from '../core/handoff/handoff.ts';
import { review } from '../core/handoff/review.ts';
import { ARTEFACTS, REVIEWED } from '../core/handoff/types.ts';
import type { Plan } from '../core/plan/types.ts';
import { predict } from '../core/predict/predict.ts';
import { BuiltFiles } from '../core/reconcile/built-files.ts';
import { counted } from '../core/text/counted.ts';
import { sourcePatch } from '../patch/patch.ts';
import { textIfThere } from '../reader/folder-files.ts';
import { type ConditionOptions, conditionsOf, withConditionOptions } from './conditions.ts';
import { planNamed, readProject, readText, routeNamed, writeFile } from './files.ts';
import { print } from './output.ts';
import { readFolder } from './reading.ts';

/** The edits of the source, a landing, the plan itself, and what is written from it. */
const KINDS = ['patch', 'har', 'plan', ...ARTEFACTS] as const;

interface Options extends ConditionOptions {
  kind: string;
  plan?: string;
  files?: string;
  sources?: string;
  route?: string;
  out: string;
}

export function addExport(program: Command): void {
  const command = program
    .command('export')
    .description('what a plan hands over: links, headers, rules, scripts, a manifest, figures or a report')
    .argument('<file>', 'project file')
    .requiredOption('--kind <kind>', `one of ${KINDS.join(', ')}`)
    .requiredOption('--out <path>', 'file to write')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .option(
      '--sources <folder>',
      'for a patch: the folder as it is now; files that changed since they were read are refused',
    )
    .option('--route <pattern>', 'for a HAR: the landing; the first route by default')
    .option(
      '--files <map>',
      'JSON that names the built file of each module, or the folder of a build with maps; stand-ins without it',
    );
  withConditionOptions(command).action(async (file: string, options: Options, command: Command) => {
    const kind = KINDS.find((a) => a === options.kind);
    if (!kind)
      throw new InputError('Nothing of that kind', `Choose one of ${KINDS.join(', ')}.`, `--kind ${options.kind}`);
    const project = readProject(file);
    const plan = planNamed(project, options.plan);
    if (kind === 'patch') exportPatch(command, project, plan, options);
    else if (kind === 'har') exportLanding(command, project, plan, options);
    else if (kind === 'plan') {
      writeFile(options.out, writePlanFile(studied(project), plan));
      print(command, { kind, out: options.out }, () => [`${kind} written to ${options.out}`]);
    } else await exportArtefact(command, project, plan, kind, options);
  });
}

/** Writes a predicted landing as an HTTP Archive. */
function exportLanding(command: Command, project: ProjectFile, plan: Plan, options: Options): void {
  const app = studied(project, plan);
  const route = routeNamed(app, options.route ?? app.routes[0]?.pattern ?? '').pattern;
  const conditions = conditionsOf(options);
  const predicted = predict(app, plan, route, conditions);
  writeFile(options.out, landingHar(app.name, route, predicted, conditions, new Date().toISOString()));
  print(command, { kind: 'har', out: options.out, route }, () => [`har written to ${options.out}`]);
}

/** Writes one of the texts that a plan is handed over as, and names the addresses that stand in for unknown ones. */
async function exportArtefact(
  command: Command,
  project: ProjectFile,
  plan: Plan,
  kind: (typeof ARTEFACTS)[number],
  options: Options,
): Promise<void> {
  const files = options.files === undefined ? null : await mapIn(options.files);
  const app = studied(project);
  const { artefacts, standIns } = REVIEWED.some((r) => r === kind)
    ? { artefacts: review(app, plan, conditionsOf(options)), standIns: [] }
    : handoff(app, plan, files);
  const { text } = artefacts.find((a) => a.kind === kind)!;
  if (text === '')
    throw new InputError(
      'Nothing to hand over',
      `The plan ${plan.name} has nothing that becomes ${kind}.`,
      `--kind ${kind}`,
    );
  writeFile(options.out, text);
  const used = standIns.filter((s) => text.includes(s));
  print(command, { kind, out: options.out, standIns: used }, () => [
    `${kind} written to ${options.out}`,
    ...(used.length > 0
      ? [`${used.length} stand-ins to be replaced by addresses of the build: ${used.slice(0, 5).join(', ')}`]
      : []),
  ]);
}

/** Writes the edits of the source, and tells what became of each decision. */
function exportPatch(command: Command, project: ProjectFile, plan: Plan, { out, sources }: Options): void {
  if (!project.sources)
    throw new InputError(
      'No sources',
      'The project file was written without them; read the app again.',
      '--kind patch',
    );
  if (sources !== undefined && !fs.existsSync(sources))
    throw new InputError('No such folder', 'Name the folder that was read.', `--sources ${sources}`);
  const now = sources === undefined ? undefined : (file: string) => textIfThere(fs.realpathSync(sources), file);
  const { diff, files, steps } = sourcePatch(studied(project), plan, project.sources, now);
  if (steps.length === 0)
    throw new InputError('Nothing to hand over', `The plan ${plan.name} has no edits of the source.`, '--kind patch');
  if (diff !== '') writeFile(out, diff);
  const lines = () => [
    diff === ''
      ? 'nothing is written: no decision can be edited by itself'
      : `${counted(files.length, 'file')} edited in ${out}; apply it with: git apply ${out}`,
    ...steps.map((s) => `${s.state}: ${s.words}${s.path ? ` (${s.path}:${s.line})` : ''}: ${s.what}`),
  ];
  print(command, { kind: 'patch', out: diff === '' ? null : out, files, steps }, lines);
}

/** The map from modules to built files: one that was written, or what the folder of a build says. */
async function mapIn(file: string): Promise<FileMap> {
  if (fs.statSync(file, { throwIfNoEntry: false })?.isDirectory())
    return new BuiltFiles((await readFolder(file, { as: 'output' })).snapshot).map();
  return readFileMap(readText(file, 'Check the path of the map.'), `--files ${file}`);
}
