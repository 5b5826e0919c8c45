import type { Command } from 'commander';
import { advise } from '../core/advise/advise.ts';
import { amend } from '../core/amend/amend.ts';
import { decisionWords } from '../core/plan/decisions.ts';
import { finish } from '../core/steps.ts';
import { modelOf } from '../core/visitors/model.ts';
import { type ConditionOptions, conditionsOf, withConditionOptions } from './conditions.ts';
import { planNamed, readProject } from './files.ts';
import { columns, ms, print } from './output.ts';

interface Options extends ConditionOptions {
  plan?: string;
}

export function addAdvise(program: Command): void {
  const command = program
    .command('advise')
    .description('what is worth changing, each measured over all landings, moves and acts')
    .argument('<file>', 'project file')
    .option('--plan <name>', 'plan in the file; the baseline by default');
  withConditionOptions(command).action((file: string, options: Options, command: Command) => {
    const project = readProject(file);
    const plan = planNamed(project, options.plan);
    const { snapshot } = amend(project.snapshot, project.amendments);
    const aside = new Set(plan.decisions.flatMap((d) => (d.kind === 'put aside' ? [d.finding] : [])));
    const { findings, facts, noGain } = finish(advise(snapshot, plan, modelOf(snapshot).model, conditionsOf(options)));
    const open = findings.filter((f) => !aside.has(f.id));
    const result = {
      findings: open.map((f) => ({
        id: f.id,
        kind: f.kind,
        what: f.what,
        why: f.why,
        where: f.routes,
        because: f.because,
        effect: {
          cost: ms(f.effect.cost),
          waste: Math.round(f.effect.waste),
          seen: f.effect.seen,
          routes: f.effect.routes.map((r) => ({
            pattern: r.pattern,
            firstContent: ms(r.firstContent),
            interactive: ms(r.interactive),
            startBytes: Math.round(r.startBytes),
            hops: r.hops,
          })),
          waits: f.effect.waits.map((w) => ({ key: w.key, change: ms(w.change) })),
        },
        ...(f.whose ? { whose: f.whose } : {}),
        cautions: f.cautions,
        decision: { words: f.way.words, decisions: f.way.decisions, withdraw: f.way.withdraw ?? [] },
      })),
      facts,
      aside: findings.filter((f) => aside.has(f.id)).map((f) => f.id),
      noGain: noGain.map((n) => ({ ...n, cost: ms(n.cost) })),
    };
    print(command, result, () =>
      open.length === 0
        ? ['nothing more that helps under these conditions']
        : columns(
            open.map((f) => [
              `${f.what}: ${f.way.decisions.map(decisionWords).join(', ') || f.way.words}`,
              f.seen ? 'seen better' : `${Math.round(f.effect.cost)} ms per visit`,
            ]),
          ),
    );
  });
}
