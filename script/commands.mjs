import fs from 'node:fs';
import { commandsText } from '../dist/cli/commands-text.js';
import { yokeline } from '../dist/cli/main.js';

/** Writes docs/COMMANDS.md from the definitions of the commands. Build first: npm run build:node. */
fs.writeFileSync('docs/COMMANDS.md', commandsText(yokeline()));
