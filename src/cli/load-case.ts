import fs from 'node:fs';
import type { Command } from 'commander';
import { InputError } from '../core/errors.ts';
import { parseLoadCase } from '../core/formats/load-case.ts';
import { playCase } from '../core/formats/play-case.ts';
import { parseJson } from '../core/text/json.ts';
import { print } from './output.ts';

export function addLoadCase(program: Command): void {
  program
    .command('load-case')
    .description('predict a load case: a page with its conditions, written down by hand or by a recorder')
    .argument('<file>', 'load case (JSON)')
    .action((file: string, _options: unknown, command: Command) => {
      if (!fs.existsSync(file)) throw new InputError('No such file', 'Check the path.', file);
      const found = parseLoadCase(parseJson(fs.readFileSync(file, 'utf8'), file));
      const prediction = playCase(found);
      print(command, prediction, () => [
        `first content ${Math.round(prediction.firstContentfulPaint ?? 0)} ms, load ${Math.round(prediction.load ?? 0)} ms`,
        ...Object.entries(prediction.resources).map(
          ([href, r]) => `${href}: ${Math.round(r.requestStart)} to ${Math.round(r.responseEnd)} ms`,
        ),
      ]);
    });
}
