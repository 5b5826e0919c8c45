import type { Command } from 'commander';
import { advise } from '../core/advise/advise.ts';
import type { Effect, Finding } from '../core/advise/types.ts';
import { amend } from '../core/amend/amend.ts';
import { type CrowdGains, gainsOver } from '../core/choose/gains-over.ts';
import { decisionWords } from '../core/plan/decisions.ts';
import { finish } from '../core/steps.ts';
import { modelOf } from '../core/visitors/model.ts';
import { type ConditionOptions, circumstancesOf, conditionsOf, FOR, withConditionOptions } from './conditions.ts';
import { planNamed, readProject } from './files.ts';
import { columns, ms, print } from './output.ts';

interface Options extends ConditionOptions {
  plan?: string;
  for: string[];
}

export function addAdvise(program: Command): void {
  const command = program
    .command('advise')
    .description('what is worth changing, each measured over all landings, moves and acts')
    .argument('<file>', 'project file')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .option(...FOR);
  withConditionOptions(command).action((file: string, options: Options, command: Command) => {
    const project = readProject(file);
    const plan = planNamed(project, options.plan);
    const { snapshot } = amend(project.snapshot, project.amendments);
    const aside = new Set(plan.decisions.flatMap((d) => (d.kind === 'put aside' ? [d.finding] : [])));
    const { model } = modelOf(snapshot);
    const { findings, facts, noGain } = finish(advise(snapshot, plan, model, conditionsOf(options)));
    const open = findings.filter((f) => !aside.has(f.id));
    const remedies = open.map((f) => f.remedy);
    const over = options.for.length > 0 ? gainsOver(snapshot, plan, remedies, model, circumstancesOf(options)) : null;
    const result = {
      findings: open.map((f, at) => ({
        id: f.id,
        kind: f.kind,
        what: f.what,
        why: f.why,
        where: f.routes,
        because: f.evidence,
        effect: metricsOf(f.effect),
        routes: f.effect.routes.map((r) => ({
          pattern: r.pattern,
          firstContent: ms(r.firstContent),
          interactive: ms(r.interactive),
          startBytes: Math.round(r.startBytes),
          otherScripts: Math.round(r.otherScripts),
          alsoFetched: Math.round(r.alsoFetched),
          hops: r.hops,
        })),
        waits: f.effect.waits.map((w) => ({ key: w.key, change: ms(w.change) })),
        ...(over ? { mix: mixOf(over[at]) } : {}),
        ...(f.whose ? { whose: f.whose } : {}),
        together: f.together === null ? null : ms(f.together),
        basis: f.basis.on === 'a link' ? { ...f.basis, saves: ms(f.basis.saves) } : f.basis,
        cautions: f.cautions,
        decision: { words: f.remedy.words, decisions: f.remedy.decisions, withdraw: f.remedy.withdraw ?? [] },
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
              `${f.what}: ${f.remedy.decisions.map(decisionWords).join(', ') || f.remedy.words}`,
              f.seen ? 'seen better' : savedWords(f),
            ]),
          ),
    );
  });
}

/** Changes of an average visit. */
function metricsOf({ cost, waste, seen, routes, perVisit }: Effect): Record<string, number | null> {
  const mean = (of: 'firstContent' | 'interactive' | 'startBytes' | 'hops') =>
    routes.reduce((sum, r) => sum + r.share * r[of], 0);
  return {
    cost: ms(cost),
    firstContent: ms(mean('firstContent')),
    interactive: ms(mean('interactive')),
    startBytes: Math.round(mean('startBytes')),
    hops: ms(mean('hops')),
    waits: ms(perVisit),
    waste: Math.round(waste),
    ...seen,
  };
}

/** Changes of the cost over several sets of conditions. */
function mixOf({ gain, crowds }: CrowdGains): object {
  return { cost: ms(-gain), under: crowds.map(({ name, share, gain: own }) => ({ name, share, cost: ms(-own) })) };
}

/** What a finding changes per visit, here or on the link that it is told for. */
function savedWords({ basis, effect }: Finding): string {
  if (basis.on === 'a link') return `${Math.round(-basis.saves)} ms per visit on ${basis.link}`;
  return `${Math.round(effect.cost)} ms per visit`;
}
