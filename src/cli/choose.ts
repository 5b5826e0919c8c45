import type { Command } from 'commander';
import { choose } from '../core/choose/choose.ts';
import type { Choice, Turn, Wanted } from '../core/choose/types.ts';
import { InputError } from '../core/errors.ts';
import { studied } from '../core/formats/project-file.ts';
import { BASELINE } from '../core/plan/types.ts';
import { alignedKilobytes } from '../core/text/amounts.ts';
import { modelOf } from '../core/visitors/model.ts';
import { type ConditionOptions, circumstancesOf, FOR, withConditionOptions } from './conditions.ts';
import { planNamed, readProject, saveProject } from './files.ts';
import { columns, ms, print } from './output.ts';

interface Options extends ConditionOptions {
  plan?: string;
  about: string;
  for: string[];
  worst?: boolean;
  changes: string;
  later: string;
  answerLater?: string;
  worth?: string;
  waste?: string;
  spareDataSavers?: boolean;
  keep?: string;
  out?: string;
}

const ABOUT = ['hints', 'splits', 'both'] as const;

export function addChoose(program: Command): void {
  const command = program
    .command('choose')
    .description(
      'the hints and splits that serve visitors best within limits, in the order in which they earn their place',
    )
    .argument('<file>', 'project file')
    .option('--plan <name>', 'plan in the file to begin with; the baseline by default')
    .option('--about <what>', `what is chosen from: ${ABOUT.join(', ')}`, 'hints')
    .option(...FOR)
    .option('--worst', 'best where a visit costs most, not on average')
    .option('--changes <n>', 'at most so many changes', '20')
    .option('--later <ms>', 'no first content later by more than this', '50')
    .option('--answer-later <ms>', 'no page answers later by more than this', '50')
    .option('--worth <ms>', 'each change has to save so much per visit', '5')
    .option('--waste <kB>', 'at most so many kB more fetched for nothing per visit')
    .option('--spare-data-savers', 'hints that fetch in case are not for visitors who save data')
    .option('--keep <name>', 'write the choice into the project as a plan of that name')
    .option('--out <file>', 'write the project there instead of changing the file');
  withConditionOptions(command).action((file: string, options: Options, command: Command) => {
    const project = readProject(file);
    const plan = planNamed(project, options.plan);
    const snapshot = studied(project);
    if (options.keep === BASELINE.name)
      throw new InputError('The baseline stays as it is', 'Give the plan another name.', '--keep');
    const steps = choose(snapshot, plan, modelOf(snapshot).model, circumstancesOf(options), wantedOf(options));
    const choice = told(steps);
    if (options.keep !== undefined) {
      const kept = { ...choice.plan, name: options.keep, basedOn: plan.name };
      const others = project.plans.filter((p) => p.name !== options.keep);
      saveProject(options.out ?? file, { ...project, plans: [...others, kept] });
    }
    print(command, shape(choice), () => [
      `${Math.round(choice.before.cost)} → ${Math.round(choice.after.cost)} ms of expected cost per visit, ${choice.measured} sets measured`,
      ...columns(
        choice.turns.map((t) => [
          t.candidate.words,
          `saves ${Math.round(t.gain)} ms`,
          `${alignedKilobytes(t.waste)} wasted then`,
        ]),
      ),
      ...choice.losers.map(
        (l) => `worse off by ${Math.round(l.change)} ms: ${l.who || 'all of it'} (${l.circumstance})`,
      ),
    ]);
  });
}

/** Runs it to its end, saying on stderr how far it is. */
function told(steps: ReturnType<typeof choose>): Choice {
  let step = steps.next();
  let phase = '';
  while (!step.done) {
    if (step.value.phase !== phase && process.stderr.isTTY) process.stderr.write(`${step.value.phase} …\n`);
    phase = step.value.phase;
    step = steps.next();
  }
  return step.value;
}

function shape(choice: Choice): object {
  const { before, after, turns, curve, losers, exhaustive, measured } = choice;
  const entry = ({ candidate, gain, cost, waste }: Turn) => ({
    hint: candidate.words,
    id: candidate.id,
    why: candidate.why,
    decisions: candidate.remedy.decisions,
    gain: ms(gain),
    cost: ms(cost),
    waste: Math.round(waste),
  });
  return {
    hints: choice.plan.decisions.flatMap((d) => (d.kind === 'hint' ? [d.hint] : [])),
    path: turns.map(entry),
    curve: curve.map((p) => ({
      waste: Math.round(p.waste),
      gain: ms(p.gain),
      chosen: p.turns.map((t) => t.candidate.id),
    })),
    cost: { before: ms(before.cost), after: ms(after.cost) },
    waste: { before: Math.round(before.waste), after: Math.round(after.waste) },
    losers: losers.map((l) => ({ ...l, change: ms(l.change) })),
    exhaustive,
    measured,
  };
}

function wantedOf(options: Options): Wanted {
  const about = ABOUT.find((a) => a === options.about);
  if (!about) throw new InputError('Nothing to choose from', `Choose one of ${ABOUT.join(', ')}.`, '--about');
  const number = (name: 'changes' | 'later' | 'answerLater' | 'worth' | 'waste'): number => {
    const n = Number(options[name]);
    if (options[name] === '' || !Number.isFinite(n))
      throw new InputError(
        'Not a number',
        'Give a number.',
        `--${name === 'answerLater' ? 'answer-later' : name} ${options[name]}`,
      );
    return n;
  };
  return {
    about,
    aim: options.worst ? 'worst' : 'mean',
    limits: {
      changes: number('changes'),
      firstContentMs: number('later'),
      interactiveMs: number('answerLater'),
      changeMs: number('worth'),
      wasteBytes: options.waste === undefined ? null : number('waste') * 1000,
      spareDataSavers: options.spareDataSavers === true,
    },
  };
}
