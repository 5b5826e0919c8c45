import type { Command, Option } from 'commander';

/** All commands of the command line with what they take, as Markdown: what `--help` says of each, in one page. */
export function commandsText(program: Command): string {
  const commands = program.commands.filter((c) => c.name() !== 'help');
  const everywhere = program.options.map(optionRow).join('\n');
  return `${[
    '# Commands',
    `${program.description()}\n\nWhere the output isn’t a terminal, every command prints JSON. Whatever can’t be done ends with exit code 2 and says on stderr what to do; with \`--json\` as \`{ "error": { "title", "detail", "at" } }\`.\n\n*This page is written by \`node script/commands.mjs\` from the definitions of the commands.*`,
    `| everywhere | |\n|---|---|\n${everywhere}`,
    ...commands.map(commandText),
  ].join('\n\n')}\n`;
}

function commandText(command: Command): string {
  const args = command.registeredArguments.map((a) => (a.required ? `<${a.name()}>` : `[${a.name()}]`));
  const about = command.registeredArguments.filter((a) => a.description !== '');
  const rows = [...about.map((a) => `| \`${a.name()}\` | ${cell(a.description)} |`), ...command.options.map(optionRow)];
  return [
    `## ${command.name()}`,
    `\`yokeline ${[command.name(), ...args].join(' ')}\`: ${command.description()}.`,
    ...(rows.length === 0 ? [] : [`| takes | |\n|---|---|\n${rows.join('\n')}`]),
    ...afterHelp(command),
  ].join('\n\n');
}

function optionRow(option: Option): string {
  const { flags, description, mandatory, defaultValue } = option;
  const isSaid = defaultValue !== undefined && !Array.isArray(defaultValue) && typeof defaultValue !== 'boolean';
  const notes = [...(mandatory ? ['needed'] : []), ...(isSaid ? [`\`${defaultValue}\` where nothing is said`] : [])];
  return `| \`${flags.replaceAll('|', '\\|')}\` | ${cell(description)}${notes.length > 0 ? ` (${notes.join(', ')})` : ''} |`;
}

/** What a command adds after its own help. */
function afterHelp(command: Command): string[] {
  const said: string[] = [];
  const write = (text: string) => said.push(text);
  command.configureOutput({ writeOut: write }).outputHelp();
  const whole = said.join('');
  const own = command.helpInformation();
  const more = whole.slice(whole.indexOf(own) + own.length).trim();
  return more === '' ? [] : [more];
}

const cell = (text: string) => text.replaceAll('|', '\\|').replace(/\s+/g, ' ');
