import type { Command } from 'commander';
import { InputError } from '../core/errors.ts';
import { writeHar } from '../core/formats/har.ts';
import { studied } from '../core/formats/project-file.ts';
import { predict } from '../core/predict/predict.ts';
import { CACHE_STATES, type Conditions, DEVICES, LINKS } from '../core/sim/conditions.ts';
import { VERSION } from '../core/version.ts';
import { planNamed, readProject, writeFile } from './files.ts';
import { columns, kilobytes, ms, print } from './output.ts';

interface Options {
  route: string;
  plan?: string;
  link: string;
  device: string;
  cache: string;
  har?: string;
}

export function addSimulate(program: Command): void {
  program
    .command('simulate')
    .description('predict the landing on a route')
    .argument('<file>', 'project file')
    .requiredOption('--route <pattern>', 'route to land on')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .option('--link <id>', `one of ${LINKS.map((l) => l.id).join(', ')}`, LINKS[0].id)
    .option('--device <id>', `one of ${DEVICES.map((d) => d.id).join(', ')}`, DEVICES[0].id)
    .option('--cache <state>', `one of ${CACHE_STATES.join(', ')}`, 'empty')
    .option('--har <file>', 'write the predicted landing as an HTTP Archive (HAR 1.2)')
    .action((file: string, options: Options, command: Command) => {
      const project = readProject(file);
      const conditions = conditionsOf(options);
      const plan = planNamed(project, options.plan);
      const {
        timeline,
        reading,
        chain,
        lowerBound,
        program: load,
      } = predict(studied(project, plan), plan, options.route, conditions);
      const { milestones, readout } = reading;
      if (options.har !== undefined)
        writeFile(
          options.har,
          JSON.stringify(
            writeHar(timeline, reading, {
              origin: 'https://app.example',
              title: `${project.snapshot.name} ${options.route}`,
              startedAt: new Date().toISOString(),
              version: VERSION,
              httpVersion: conditions.link.protocol === 'h1' ? 'HTTP/1.1' : conditions.link.protocol,
            }),
            null,
            1,
          ),
        );
      const result = {
        conditions,
        milestones: mapped(milestones),
        readout: mapped(readout, 3),
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
          bytes: Math.round(r.bytes),
        })),
        tasks: timeline.tasks.map((t) => ({ kind: t.kind, name: t.name, start: ms(t.start), end: ms(t.end) })),
        reveals: timeline.reveals.map((r) => ({ part: load.parts[r.part].id, state: r.state, at: ms(r.at) })),
        chain: chain.map(({ kind, from, to, what }) => ({ kind, from, to, what })),
        lowerBound: ms(lowerBound),
        ...(timeline.stopped ? { stopped: timeline.stopped } : {}),
      };
      print(command, result, () => [
        ...(timeline.stopped ? [`cut off: ${timeline.stopped}`] : []),
        `first content ${said(milestones.firstContent)}, interactive ${said(milestones.interactive)} (no plan gets below ${said(lowerBound)})`,
        `${readout.requests} requests in ${readout.hops + 1} hops, ${kilobytes(readout.startBytes)} of script and style at start`,
        ...columns(
          timeline.requests.map((r) => [
            `${'  '.repeat(r.hop)}${r.name}`,
            r.role,
            kilobytes(r.bytes),
            said(r.sent),
            said(r.end),
          ]),
        ),
      ]);
    });
}

function conditionsOf(options: Options): Conditions {
  const link = LINKS.find((l) => l.id === options.link || l.name === options.link);
  if (!link)
    throw new InputError(
      'No such link',
      `Choose one of ${LINKS.map((l) => l.id).join(', ')}.`,
      `--link ${options.link}`,
    );
  const device = DEVICES.find((d) => d.id === options.device || d.name === options.device);
  if (!device)
    throw new InputError(
      'No such device',
      `Choose one of ${DEVICES.map((d) => d.id).join(', ')}.`,
      `--device ${options.device}`,
    );
  const cache = CACHE_STATES.find((c) => c === options.cache);
  if (!cache)
    throw new InputError(
      'No such cache state',
      `Choose one of ${CACHE_STATES.join(', ')}.`,
      `--cache ${options.cache}`,
    );
  return { link, device, cache };
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

function said(value: number): string {
  return Number.isFinite(value) ? `${Math.round(value)} ms` : 'never';
}
