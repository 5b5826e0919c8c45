import fs from 'node:fs';
import path from 'node:path';
import type { Command } from 'commander';
import { rebuiltRoutes } from '../core/amend/amend.ts';
import { NO_AMENDMENTS } from '../core/amend/types.ts';
import { InputError } from '../core/errors.ts';
import { PROJECT_FORMAT, PROJECT_VERSION, type ProjectFile, studied } from '../core/formats/project-file.ts';
import type { Plan } from '../core/plan/types.ts';
import { type Prediction, predict } from '../core/predict/predict.ts';
import { asRehearsed } from '../core/rehearsals/as-rehearsed.ts';
import { conditionsAsRun } from '../core/rehearsals/conditions-as-run.ts';
import { differencesOf } from '../core/rehearsals/differences.ts';
import { learnt } from '../core/rehearsals/learn.ts';
import { packageTimes } from '../core/rehearsals/package-times.ts';
import { predictedOf } from '../core/rehearsals/predicted.ts';
import { type Beside, type Gain, gainsOf, quantitiesBeside } from '../core/rehearsals/quantities.ts';
import type { Rehearsal } from '../core/rehearsals/types.ts';
import { besideWords, differenceWords, gainWords, leftOutWords, slowedWords } from '../core/rehearsals/words.ts';
import { counted } from '../core/text/counted.ts';
import { keepPackageTimes } from '../reader/memory/package-memory.ts';
import type { ReadOptions } from '../reader/read-app.ts';
import { rehearse } from '../rehearse/rehearse.ts';
import { dataFrom } from '../rehearse/stage/data-from.ts';
import { type ConditionOptions, conditionsOf, withConditionOptions } from './conditions.ts';
import { planNamed, readProject, routeNamed, saveProject } from './files.ts';
import { columns, print } from './output.ts';
import { howProcessesRead, readFolder, STARTS, tellOutside, WORKSPACE, workspaceFrom } from './reading.ts';

interface Options extends ConditionOptions {
  app?: string;
  route: string;
  plan?: string;
  against?: string;
  runs: string;
  address?: string;
  data?: string;
  act?: string[];
  learn?: boolean;
  workspace?: string;
  start?: string[];
}

/** So often a landing is run at most. */
export const MOST_RUNS = 50;

export function addRehearse(program: Command): void {
  const command = program
    .command('rehearse')
    .description(
      'run a landing of a plan in a real browser and lay it beside what was predicted; runs the app’s own code',
    )
    .argument('<what>', 'the app’s folder, or a project file (then with --app)')
    .requiredOption('--route <pattern>', 'route to land on')
    .option('--app <folder>', 'folder with the sources of a project file')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .option('--against <name>', 'plan that it is compared with, rehearsed as well')
    .option('--runs <n>', `how often each plan is run, 1 to ${MOST_RUNS}`, '3')
    .option('--address <path>', 'address on the route, where its pattern leaves that open')
    .option(
      '--data <where>',
      'answers to calls for data: a folder, a recording (.har), or the address of a server; made up without it',
    )
    .option(
      '--act <part>',
      'what is done once the page has come to rest: part behind an act or below the first screen, by its id, or route that a link leads to, by its pattern; as often as wanted, one after the other',
      (act: string, before: string[] = []) => [...before, act],
    )
    .option('--learn', 'write what was measured into the project file, for its predictions')
    .option(...WORKSPACE)
    .option(...STARTS);
  withConditionOptions(command).action(async (what: string, options: Options, command: Command) => {
    const { project, folder } = await appOf(what, options);
    const conditions = conditionsOf(options);
    const runs = runsOf(options.runs);
    const plan = planNamed(project, options.plan);
    routeNamed(studied(project, plan), options.route);
    const one = async (of: Plan) => {
      const rehearsal = await rehearse(
        {
          ...{ folder, plan: of, pattern: options.route, address: options.address, conditions, runs },
          amendments: project.amendments,
          memory: howProcessesRead().memory,
          reading: {
            ...readAs(project),
            ...workspaceFrom(options),
            starts: options.start,
            corrected: rebuiltRoutes(project.amendments),
          },
          acts: options.act ?? [],
          ...(options.data === undefined ? {} : { data: dataFrom(options.data, path.resolve) }),
        },
        ({ doing }) => process.stderr.write(`${of.name}: ${doing}\n`),
      );
      return laidBeside(project, of, rehearsal);
    };
    const done = await one(plan);
    const against = options.against === undefined ? null : await one(planNamed(project, options.against));
    const gains = against ? gainsOf(against.quantities, done.quantities) : null;
    if (options.learn) learn(what, project, [done.rehearsal, ...(against ? [against.rehearsal] : [])]);
    const result = { ...asJson(done), ...(against ? { against: asJson(against), gains } : {}) };
    print(command, result, () => [
      ...lines(done),
      ...(against ? ['', ...lines(against), '', ...gainLines(gains!)] : []),
    ]);
  });
}

interface Laid {
  plan: Plan;
  rehearsal: Rehearsal;
  prediction: Prediction;
  quantities: Beside[];
}

function laidBeside(project: ProjectFile, given: Plan, rehearsal: Rehearsal): Laid {
  const plan = asRehearsed(given, rehearsal);
  const [snapshot, conditions] = [studied(project, plan), conditionsAsRun(rehearsal)];
  const prediction = predict(snapshot, plan, rehearsal.pattern, conditions);
  const predicted = predictedOf(snapshot, plan, rehearsal, conditions, prediction);
  return {
    plan: given,
    rehearsal,
    prediction,
    quantities: quantitiesBeside(predicted, rehearsal),
  };
}

function asJson({ rehearsal, prediction, quantities }: Laid) {
  return { rehearsal, quantities, differences: differencesOf(prediction, rehearsal) };
}

function lines({ plan: of, rehearsal, prediction, quantities }: Laid): string[] {
  const { plan, pattern, address, runs, browser, conditions, told } = rehearsal;
  const errors = [...new Set(runs.flatMap((r) => r.errors))];
  return [
    `${plan}: ${pattern}${address === pattern ? '' : ` at ${address}`}, ${counted(runs.length, 'run')} in ${browser} (${conditions.link.name}, ${conditions.device.name}${slowedWords(rehearsal)})`,
    ...columns([['', 'predicted', 'rehearsed', 'off'], ...quantities.map(besideWords)]),
    ...differencesOf(prediction, rehearsal).map(differenceWords),
    ...errors.map((e) => `the page threw: ${e}`),
    ...leftOutWords(of, rehearsal).map((l) => `not run: ${l}`),
    ...told.map((t) => `note: ${t}`),
  ];
}

function gainLines(gains: readonly Gain[]): string[] {
  return columns([['gain', 'predicted', 'rehearsed', ''], ...gains.map(gainWords)]);
}

/** The project and the folder of its sources; of a folder it is read first. */
async function appOf(what: string, options: Options): Promise<{ project: ProjectFile; folder: string }> {
  const isFolder = fs.statSync(what, { throwIfNoEntry: false })?.isDirectory() === true;
  if (!isFolder) {
    if (options.app === undefined)
      throw new InputError(
        'No sources',
        'A project file doesn’t hold what is run: name the app’s folder with --app.',
        what,
      );
    return { project: readProject(what), folder: path.resolve(options.app) };
  }
  if (options.learn)
    throw new InputError(
      'Nowhere to write',
      'What was measured is written into a project file: make one with yokeline read, and name it with --app FOLDER.',
      '--learn',
    );
  const read = await readFolder(what, { ...workspaceFrom(options), starts: options.start });
  const { snapshot, texts, sources } = read;
  tellOutside(what, snapshot);
  const head = { format: PROJECT_FORMAT, version: PROJECT_VERSION } as const;
  return {
    project: { ...head, snapshot, plans: [], amendments: NO_AMENDMENTS, texts, sources },
    folder: path.resolve(what),
  };
}

/** How the folder was read: sources, or what a production build made of them. */
function readAs({ snapshot }: ProjectFile): Pick<ReadOptions, 'as' | 'base'> {
  return snapshot.output === null ? { as: 'sources' } : { as: 'output', base: snapshot.base };
}

/** How often landings are run, as told; throws InputError. */
export function runsOf(given: string): number {
  const runs = Number(given);
  if (Number.isInteger(runs) && runs >= 1 && runs <= MOST_RUNS) return runs;
  throw new InputError('Not a number of runs', `Give a whole number from 1 to ${MOST_RUNS}.`, `--runs ${given}`);
}

function learn(file: string, project: ProjectFile, rehearsals: readonly Rehearsal[]): void {
  const measured = learnt(project.snapshot, rehearsals, project.amendments.measured);
  saveProject(file, { ...project, amendments: { ...project.amendments, measured } });
  const { memory } = howProcessesRead();
  if (memory !== null) keepPackageTimes(memory, packageTimes(measured, project.amendments.measured), Date.now());
}
