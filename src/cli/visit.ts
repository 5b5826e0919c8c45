import fs from 'node:fs';
import type { Command } from 'commander';
import { planned } from '../core/chunks/planned.ts';
import { InputError } from '../core/errors.ts';
import { type ProjectFile, studied } from '../core/formats/project-file.ts';
import { alignedKilobytes } from '../core/text/amounts.ts';
import { parseJson } from '../core/text/json.ts';
import { readVisit } from '../core/visits/notation.ts';
import { playVisit } from '../core/visits/play.ts';
import { VisitCompiler } from '../core/visits/program.ts';
import type { Visit } from '../core/visits/types.ts';
import { VISIT } from '../core/visits/types.ts';
import { type ConditionOptions, conditionsOf, withConditionOptions } from './conditions.ts';
import { planNamed, readProject } from './files.ts';
import { columns, ms, print } from './output.ts';
import { said } from './simulate.ts';

interface Options extends ConditionOptions {
  visit: string;
  plan?: string;
}

export function addVisit(program: Command): void {
  const command = program
    .command('visit')
    .description('play a visit: what each moment asks for, and how long the person waits')
    .argument('<file>', 'project file')
    .requiredOption(
      '--visit <visit>',
      'name of a visit kept in the file, a JSON file, or steps like "/ > move /book @4000+300 > act payment @8000"',
    )
    .option('--plan <name>', 'plan in the file; the baseline by default');
  withConditionOptions(command).action((file: string, options: Options, command: Command) => {
    const project = readProject(file);
    const plan = planNamed(project, options.plan);
    const visit = visitFrom(project, options.visit);
    const compiler = new VisitCompiler(planned(studied(project, plan), plan));
    const { experiences, timeline, sums } = playVisit(compiler, visit, conditionsOf(options));
    const steps = experiences.map((e) => ({
      id: e.step < 0 ? 'landing' : `steps[${e.step}]`,
      kind: e.kind,
      name: e.name,
      page: e.page,
      at: ms(e.act),
      lead: ms(e.lead),
      wait: ms(e.wait),
      shown: ms(e.shown),
      interactive: ms(e.answering),
      complete: ms(e.complete),
      fallback: e.standIn ? [ms(e.standIn.from), ms(e.standIn.to)] : null,
      failed: e.failed,
      requests: e.requests.map((i) => {
        const r = timeline.pages[e.page].timeline.requests[i];
        return { address: r.address, name: r.name, role: r.role, bytes: Math.round(r.bytes), end: ms(r.end - e.act) };
      }),
    }));
    const result = {
      visit,
      steps,
      waits: ms(sums.waits),
      bytes: Math.round(sums.bytes),
      unused: Math.round(sums.unused),
      ...(timeline.stopped ? { stopped: timeline.stopped } : {}),
    };
    print(command, result, () => [
      ...columns(
        experiences.map((e) => [`${e.kind} ${e.name}`, said(e.wait), alignedKilobytes(e.bytes), e.failed ?? '']),
      ),
      `waits ${said(sums.waits)} in all; ${alignedKilobytes(sums.bytes)} travel, ${alignedKilobytes(sums.unused)} of it never used`,
    ]);
  });
}

/** A visit by its name in the project, from a JSON file, or as written on the line. */
function visitFrom(project: ProjectFile, said: string): Visit {
  const kept = project.amendments.visits?.find((v) => v.name === said);
  if (kept) return kept;
  if (!said.endsWith('.json')) return readVisit(said);
  let text: string;
  try {
    text = fs.readFileSync(said, 'utf8');
  } catch {
    throw new InputError('No such file', 'Check the path of the visit.', `--visit ${said}`);
  }
  return VISIT.check(parseJson(text, said), said);
}
