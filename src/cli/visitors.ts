import fs from 'node:fs';
import type { Command } from 'commander';
import Papa from 'papaparse';
import { withLearned } from '../core/amend/visits.ts';
import { planned } from '../core/chunks/planned.ts';
import { InputError } from '../core/errors.ts';
import { NavigationLog } from '../core/formats/navigation-log.ts';
import { studied } from '../core/formats/project-file.ts';
import { finish } from '../core/steps.ts';
import { alignedKilobytes } from '../core/text/amounts.ts';
import { counted } from '../core/text/counted.ts';
import { type Expectation, expectWaits } from '../core/visitors/expect.ts';
import { type Learned, LogLearner } from '../core/visitors/learn.ts';
import { modelOf } from '../core/visitors/model.ts';
import { VisitCompiler } from '../core/visits/program.ts';
import { type ConditionOptions, conditionsOf, withConditionOptions } from './conditions.ts';
import { planNamed, readProject, saveProject } from './files.ts';
import { columns, ms, print } from './output.ts';
import { said } from './simulate.ts';

interface Options extends ConditionOptions {
  plan?: string;
  log?: string;
  out?: string;
  error: string;
}

const SEED = 20_261;
const MOST_VISITS = 20_000;
const TOLD_EVERY = 100_000;

export function addVisitors(program: Command): void {
  const command = program
    .command('visitors')
    .description('what visitors can expect of moves and acts; with --log, who they are is learned from a log first')
    .argument('<file>', 'project file')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .option('--log <file>', 'navigation log (CSV or JSON lines: visit, time, route, action)')
    .option('--out <file>', 'write the project with what the log says')
    .option('--error <share>', 'standard error of the waits, as a share of them, that is good enough', '0.01');
  withConditionOptions(command).action(async (file: string, options: Options, command: Command) => {
    const error = Number(options.error);
    if (!(error > 0 && error <= 1))
      throw new InputError(
        'No such error',
        'Give a share above 0, up to 1, for instance 0.01.',
        `--error ${options.error}`,
      );
    const project = readProject(file);
    let learned: Learned | null = null;
    if (options.log !== undefined) {
      learned = await learn(options.log, new LogLearner(studied(project).routes));
      project.amendments = withLearned(project.amendments, studied(project), learned);
      if (options.out !== undefined) saveProject(options.out, project);
    }
    const plan = planNamed(project, options.plan);
    const snapshot = studied(project, plan);
    const { model, troubles } = modelOf(snapshot);
    const variants = [{ conditions: conditionsOf(options), share: 1 }];
    const found = finish(
      expectWaits(new VisitCompiler(planned(snapshot, plan)), model, variants, {
        seed: SEED,
        visits: MOST_VISITS,
        error,
      }),
    );
    const said = { found, learned, troubles: troubles.map((t) => t.message) };
    print(command, figuresOf(said), () => linesOf(said));
  });
}

interface Said {
  found: Expectation;
  learned: Learned | null;
  troubles: string[];
}

/** What visitors can expect, as the command prints it with --json; times in ms, sizes in bytes. */
function figuresOf({ found, learned, troubles }: Said) {
  return {
    ...(learned ? { log: { lines: learned.lines, visits: learned.visits, troubles: learned.troubles } } : {}),
    troubles,
    visits: found.visits,
    waits: { mean: ms(found.waits.value), error: ms(found.waits.error) },
    spread: found.spread.map((s) => ({ share: s.share, wait: ms(s.wait) })),
    atOnce: found.atOnce.value,
    bytes: Math.round(found.bytes.value),
    unused: Math.round(found.unused.value),
    unusedSavers: found.unusedSavers === null ? null : Math.round(found.unusedSavers),
    starts: found.starts.map((s) => ({ ...s, wait: ms(s.wait) })),
    rows: found.rows.map(({ key, kind, perVisit, wait, half, most, atOnce, unused, played }) => ({
      key,
      kind,
      perVisit,
      wait: wait ? { mean: ms(wait.value), error: ms(wait.error) } : null,
      half: half === null ? null : ms(half),
      most: most === null ? null : ms(most),
      atOnce,
      unused: Math.round(unused),
      played,
    })),
  };
}

function linesOf({ found, learned, troubles }: Said): string[] {
  return [
    ...(learned ? [`${counted(learned.visits, 'visit')} in ${counted(learned.lines, 'line')} of the log`] : []),
    ...(learned?.troubles ?? []).map((t) => `${t.kind}: ${t.what}, ${counted(t.count, 'line')} from line ${t.line} on`),
    ...troubles,
    `waits ${said(found.waits.value)} ± ${found.waits.error.toFixed(1)} ms per visit (${found.visits} played), ${alignedKilobytes(found.unused.value)} never used`,
    ...columns(
      [...found.rows]
        .sort((a, b) => (b.wait?.value ?? 0) * b.perVisit - (a.wait?.value ?? 0) * a.perVisit)
        .map((r) => [
          r.key,
          `${(r.perVisit * 100).toFixed(1)} of 100`,
          said(r.wait?.value ?? Number.NaN),
          alignedKilobytes(r.unused),
        ]),
    ),
  ];
}

/** Reads a log line by line; tells on stderr how far it is. */
async function learn(file: string, learner: LogLearner): Promise<Learned> {
  const log = new NavigationLog(
    file,
    (text) => Papa.parse<string[]>(text, { delimiter: ',' }).data,
    (record, line) => learner.add(record, line),
    (what, line) => learner.unreadable(what, line),
  );
  let told = 0;
  try {
    for await (const piece of fs.createReadStream(file, 'utf8')) {
      log.push(piece as string);
      if (learner.linesRead - told < TOLD_EVERY) continue;
      told = learner.linesRead;
      process.stderr.write(`${counted(told, 'line')}\n`);
    }
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === undefined) throw error;
    throw new InputError('The log can’t be read', (error as Error).message, file);
  }
  log.end();
  return learner.result();
}
