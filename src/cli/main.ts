import { Command } from 'commander';
import { InputError } from '../core/errors.ts';
import { VERSION } from '../core/version.ts';
import { addAdvise } from './advise.ts';
import { addCarried } from './carried.ts';
import { addCheck } from './check.ts';
import { addChoose } from './choose.ts';
import { addChunks } from './chunks.ts';
import { addExport } from './export.ts';
import { addGraph } from './graph.ts';
import { addKeep } from './keep.ts';
import { addLimits } from './limits.ts';
import { addLoadCase } from './load-case.ts';
import { addOpen } from './open.ts';
import { addPlan } from './plan.ts';
import { addRead } from './read.ts';
import { addReconcile } from './reconcile.ts';
import { addRehearse } from './rehearse.ts';
import { addSimulate } from './simulate.ts';
import { addVisit } from './visit.ts';
import { addVisitors } from './visitors.ts';
import { addWatch } from './watch.ts';

const BAD_INPUT = 2;

/** Builds the `yokeline` command. */
export function yokeline(): Command {
  const program = new Command('yokeline')
    .description('Plan split points and predict the startup waterfall of a web app; rehearse it in a browser.')
    .version(VERSION)
    .configureHelp({ showGlobalOptions: true })
    .option('--json', 'print JSON (also when the output is not a terminal)')
    .exitOverride((error) => {
      process.exit(error.exitCode === 0 ? 0 : BAD_INPUT);
    });
  for (const add of [
    addOpen,
    addRead,
    addGraph,
    addChunks,
    addCarried,
    addSimulate,
    addPlan,
    addVisit,
    addVisitors,
    addAdvise,
    addChoose,
    addExport,
    addLimits,
    addKeep,
    addCheck,
    addWatch,
    addReconcile,
    addRehearse,
    addLoadCase,
  ])
    add(program);
  return program;
}

/** Runs a command line; bad input ends with exit code 2 and says on stderr what to do. */
export async function run(argv: string[]): Promise<void> {
  try {
    await yokeline().parseAsync(argv);
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const said = argv.includes('--json') ? JSON.stringify({ error: error.toJSON() }) : `yokeline: ${error.message}`;
    process.stderr.write(`${said}\n`);
    process.exitCode = BAD_INPUT;
  }
}
