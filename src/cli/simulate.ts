import type { Command } from 'commander';
import { landingHar } from '../core/formats/landing-har.ts';
import { studied } from '../core/formats/project-file.ts';
import { basisWords } from '../core/metrics/basis.ts';
import { earlyInput } from '../core/metrics/early-input.ts';
import { START_SUMS } from '../core/metrics/start.ts';
import { type Prediction, predict } from '../core/predict/predict.ts';
import { alignedKilobytes } from '../core/text/amounts.ts';
import { triggerWords } from '../core/vocabulary/triggers.ts';
import { type ConditionOptions, conditionsOf, withConditionOptions } from './conditions.ts';
import { planNamed, readProject, writeFile } from './files.ts';
import { columns, ms, print } from './output.ts';

interface Options extends ConditionOptions {
  route: string;
  plan?: string;
  har?: string;
}

export function addSimulate(program: Command): void {
  const command = program
    .command('simulate')
    .description('predict the landing on a route')
    .argument('<file>', 'project file')
    .requiredOption('--route <pattern>', 'route to land on')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .option('--har <file>', 'write the predicted landing as an HTTP Archive (HAR 1.2)');
  withConditionOptions(command).action((file: string, options: Options, command: Command) => {
    const project = readProject(file);
    const conditions = conditionsOf(options);
    const plan = planNamed(project, options.plan);
    const predicted = predict(studied(project, plan), plan, options.route, conditions);
    if (options.har !== undefined)
      writeFile(
        options.har,
        landingHar(project.snapshot.name, options.route, predicted, conditions, new Date().toISOString()),
      );
    print(command, { conditions, ...figuresOf(predicted) }, () => linesOf(predicted));
  });
}

/** A predicted landing as the command prints it with --json; times in ms, sizes in bytes. */
function figuresOf(predicted: Prediction) {
  const { timeline, reading, chain, basis, lowerBound, program: load } = predicted;
  const { milestones, readout } = reading;
  const early = earlyInput(load, timeline);
  return {
    milestones: mapped(milestones),
    ...(predicted.spread
      ? { spread: { median: mapped(predicted.spread.median), p90: mapped(predicted.spread.p90) } }
      : {}),
    readout: mapped(readout, 3),
    // The files of the three sums, and what their figures don't know.
    sums: Object.fromEntries(
      START_SUMS.map((sum) => [
        sum,
        reading.sums[sum].map((f) => ({
          address: timeline.requests[f.request].address,
          name: timeline.requests[f.request].name,
          bytes: f.unknown ? null : Math.round(f.bytes),
          notUsed: Math.round(f.idle),
        })),
      ]),
    ),
    unknown: reading.unknown,
    missing: reading.missing.map(({ part, state }) => ({
      part: load.parts[part].id,
      never: state,
      waits: load.parts[part].held ? triggerWords(load.parts[part].held!) : null,
    })),
    requests: timeline.requests.map((r) => ({
      address: r.address,
      name: r.name,
      role: r.role,
      hop: r.hop,
      cause: r.cause.what,
      discovered: ms(r.discovered),
      sent: ms(r.sent),
      firstByte: ms(r.firstByte),
      end: ms(r.end),
      bytes: r.unknownSize ? null : Math.round(r.bytes),
    })),
    tasks: timeline.tasks.map((t) => ({ kind: t.kind, name: t.name, start: ms(t.start), end: ms(t.end) })),
    reveals: timeline.reveals.map((r) => ({ part: load.parts[r.part].id, state: r.state, at: ms(r.at) })),
    chain: chain.map(({ kind, from, to, what }) => ({ kind, from, to, what })),
    basis: { running: mapped(basis.running), drawing: mapped(basis.drawing) },
    earlyInput: early && { part: load.parts[early.part].id, waitMs: ms(early.waitMs) },
    lowerBound: ms(lowerBound),
    ...(timeline.stopped ? { stopped: timeline.stopped } : {}),
  };
}

/** A predicted landing in lines for people. */
function linesOf(predicted: Prediction): string[] {
  const { timeline, reading, basis, lowerBound, program: load } = predicted;
  const { milestones, readout } = reading;
  const early = earlyInput(load, timeline);
  return [
    ...(timeline.stopped ? [`cut off: ${timeline.stopped}`] : []),
    `first content ${said(milestones.firstContent)}, largest content ${said(milestones.largestContent)} (${reading.largest}), interactive ${said(milestones.interactive)} (no plan gets below ${said(lowerBound)})`,
    ...basisWords(basis).map((words) => `until then the thread spends ${words}`),
    ...(early ? [`answers early input after ${said(early.waitMs)} (${load.parts[early.part].name})`] : []),
    ...(predicted.spread
      ? [
          `packets are lost at random: nine of ten loads have first content by ${said(predicted.spread.p90.firstContent)}, are interactive by ${said(predicted.spread.p90.interactive)}`,
        ]
      : []),
    `${readout.requests} requests in ${readout.hops + 1} hops, ${alignedKilobytes(readout.startBytes)} at start (${alignedKilobytes(readout.unusedAtStart)} of it not used there)`,
    `other scripts ${alignedKilobytes(readout.otherScripts)}, also fetched ${alignedKilobytes(readout.alsoFetched)}`,
    ...(reading.unknown.length > 0 ? [`at least: the size of ${reading.unknown.join(', ')} isn't known`] : []),
    ...reading.missing.map(
      ({ part, state }) => `${load.parts[part].name} never ${state === 'shown' ? 'shows' : 'answers'}`,
    ),
    ...columns(
      timeline.requests.map((r) => [
        `${'  '.repeat(r.hop)}${r.name}`,
        r.role,
        r.unknownSize ? 'unknown' : alignedKilobytes(r.bytes),
        said(r.sent),
        said(r.end),
      ]),
    ),
  ];
}

function mapped<T extends object>(values: T, digits = 1): Record<string, number | null> {
  const scale = 10 ** digits;
  return Object.fromEntries(
    Object.entries(values).map(([key, value]) => [
      key,
      Number.isFinite(value) ? Math.round(value * scale) / scale : null,
    ]),
  );
}

export function said(value: number): string {
  return Number.isFinite(value) ? `${Math.round(value)} ms` : 'never';
}
