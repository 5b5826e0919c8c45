import fs from 'node:fs';
import { commandsText } from './commands-text.ts';
import { yokeline } from './main.ts';

it('docs/COMMANDS.md says of every command what it takes (else: node script/commands.mjs)', () => {
  const program = yokeline();
  const text = commandsText(program);
  for (const command of program.commands) {
    expect(text).toContain(`## ${command.name()}\n`);
    expect(command.description()).not.toBe('');
    for (const option of command.options) expect(option.description).not.toBe('');
    for (const argument of command.registeredArguments) expect(argument.description).not.toBe('');
  }
  expect(fs.readFileSync('docs/COMMANDS.md', 'utf8') === text).toBe(true);
});
