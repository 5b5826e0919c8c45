import type { Command } from 'commander';
import { InputError } from '../core/errors.ts';
import { parsePlanFile } from '../core/formats/plan-file.ts';
import { studied } from '../core/formats/project-file.ts';
import { decisionWords, shipsBy, withDecision } from '../core/plan/decisions.ts';
import { parseHint } from '../core/plan/hint-notation.ts';
import { parseFetch, parseImport } from '../core/plan/notation.ts';
import { BASELINE, DECISION, type Decision, type Plan } from '../core/plan/types.ts';
import { troublesOf } from '../core/ship/shipped.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { parseJson } from '../core/text/json.ts';
import { planNamed, readProject, readText, saveProject } from './files.ts';
import { print } from './output.ts';
import { readMatch, type ShapeOptions, shapesOf, withShapeOptions } from './shaping.ts';

interface Options extends ShapeOptions {
  name: string;
  basedOn?: string;
  from?: string;
  detach: string[];
  detachModule: string[];
  detachPackage: string[];
  fetch: string[];
  join: string[];
  withoutScript: string[];
  trim: string[];
  styleInScript: string[];
  loader?: string;
  script: string[];
  move: string[];
  decide: string[];
  hint: string[];
  route: string[];
  out?: string;
}

/** Decisions of a plan that was saved by itself. */
function planFileIn(file: string): Decision[] {
  return parsePlanFile(readText(file, 'Check the path of the plan file.'), file).plan.decisions;
}

/** A decision from outside; throws InputError that names the option and the field. */
function decision(value: unknown, option: string): Decision {
  return DECISION.check(value, option);
}

/** A script with its place, written ID@PLACEMENT. */
function scriptIn(text: string): { script: string; placement: string } {
  const at = text.lastIndexOf('@');
  return { script: text.slice(0, Math.max(0, at)), placement: text.slice(at + 1) };
}

/** The decisions that the options name, in the order of the options' list; throws InputError that names the option. */
function decisionsIn(snapshot: Snapshot, options: Options): Decision[] {
  for (const pattern of options.route) {
    if (!snapshot.routes.some((r) => r.pattern === pattern))
      throw new InputError(
        'No such route',
        `The routes are ${snapshot.routes.map((r) => r.pattern).join(', ')}.`,
        `--route ${pattern}`,
      );
  }
  return [
    ...(options.from === undefined ? [] : planFileIn(options.from)),
    ...options.detach.map((t): Decision => ({ kind: 'detach', import: parseImport(snapshot, t) })),
    ...options.detachModule.map((module): Decision => ({ kind: 'detach', module })),
    ...options.detachPackage.map((of): Decision => ({ kind: 'detach', package: of })),
    ...options.join.map((t): Decision => ({ kind: 'join', import: parseImport(snapshot, t) })),
    ...options.fetch.map((t): Decision => ({ kind: 'trigger', ...parseFetch(snapshot, t) })),
    ...options.hint.map((t): Decision => ({ kind: 'hint', hint: parseHint(snapshot, t, options.route) })),
    ...options.withoutScript.map((module): Decision => ({ kind: 'no script', module })),
    ...options.trim.map((module): Decision => ({ kind: 'trim', module })),
    ...options.styleInScript.map((what): Decision => ({ kind: 'style in script', match: readMatch(what) })),
    ...(options.loader === undefined ? [] : [decision({ kind: 'loader', loader: options.loader }, '--loader')]),
    ...options.script.map((t) => decision({ kind: 'script', ...scriptIn(t) }, `--script ${t}`)),
    ...options.move.map((t): Decision => {
      const at = t.lastIndexOf('=');
      return { kind: 'move', import: parseImport(snapshot, t.slice(0, Math.max(0, at))), to: t.slice(at + 1) };
    }),
    ...options.decide.map((t) => decision(parseJson(t, '--decide'), '--decide')),
    ...shapesOf(options),
  ];
}

const collect = (value: string, before: string[]) => [...before, value];

function planCommand(program: Command): Command {
  return program
    .command('plan')
    .description('make or change a plan inside a project file')
    .argument('<file>', 'project file')
    .requiredOption('--name <name>', 'name of the plan; made when the file has none of that name')
    .option('--based-on <name>', 'begin as a copy of that plan of the file')
    .option('--from <file>', 'take over the decisions of a plan file')
    .option('--detach <import>', 'defer an import, written FROM::SPECIFIER; may be given several times', collect, [])
    .option('--detach-module <path>', 'defer every import of a module', collect, [])
    .option('--detach-package <name>', 'defer every import into a package', collect, [])
    .option('--join <import>', 'make a deferred import static; may be given several times', collect, [])
    .option(
      '--fetch <when>',
      'when a split point is fetched, written PATH@MOMENT (idle, visible, approach …)',
      collect,
      [],
    )
    .option('--without-script <path>', 'draw a part on the server only, so that its script doesn’t travel', collect, [])
    .option('--trim <path>', 'leave out the rules of a style sheet that nothing can use', collect, [])
    .option('--style-in-script <what>', 'styles travel in script: package:NAME or a path pattern', collect, [])
    .option('--loader <way>', 'how the loader finds the files of a split point: listed or discovered')
    .option('--script <script>', 'where a classic script stands, written ID@PLACEMENT', collect, [])
    .option('--move <import>', 'have an import made by another module, written FROM::SPECIFIER=PATH', collect, [])
    .option(
      '--decide <decision>',
      'any decision, as JSON in the form of docs/schema/plan.schema.json; may be given several times',
      collect,
      [],
    )
    .option('--hint <hint>', 'add a hint, written KIND:TARGET@PLACE; may be given several times', collect, [])
    .option(
      '--route <pattern>',
      'routes whose document carries the hints; all that can use them by default',
      collect,
      [],
    )
    .option('--out <file>', 'write there instead of changing the file');
}

export function addPlan(program: Command): void {
  withShapeOptions(planCommand(program)).action((file: string, options: Options, command: Command) => {
    const project = readProject(file);
    const snapshot = studied(project);
    if (options.name === BASELINE.name) {
      throw new InputError('The baseline stays as it is', 'Give the plan another name.', '--name');
    }
    const decisions = decisionsIn(snapshot, options);
    const known = project.plans.find((p) => p.name === options.name);
    if (known && options.basedOn !== undefined)
      throw new InputError('The plan is there already', 'Leave --based-on out, or give another name.', '--based-on');
    const origin = options.basedOn === undefined ? null : planNamed(project, options.basedOn);
    const old: Plan = known ?? {
      name: options.name,
      description: '',
      decisions: origin?.decisions ?? [],
      ...(origin ? { basedOn: origin.name } : {}),
    };
    const plan = decisions.reduce(withDecision, old);
    const others = project.plans.filter((p) => p.name !== options.name);
    saveProject(options.out ?? file, { ...project, plans: [...others, plan] });
    const { stale } = troublesOf(snapshot, plan);
    print(command, { plan, stale }, () => [
      `${plan.name}:`,
      ...plan.decisions.map((d) => `  ${decisionWords(d)} (by ${shipsBy(d)})`),
      ...stale.map((s) => `  doesn’t apply: ${s.reason}`),
    ]);
  });
}
