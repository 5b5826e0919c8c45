import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Command } from 'commander';
import open from 'open';
import { InputError } from '../core/errors.ts';
import { STARTS, WORKSPACE, workspaceFrom } from './reading.ts';

/** Where the server is looked for, and started. */
const PORT = 4780;
const START_MS = 60_000;
const POLL_MS = 200;
/** So long a server may take to answer before none is there. */
const ANSWER_MS = 2000;

interface Options {
  port: string;
  browser: boolean;
  workspace?: string;
  start?: string[];
}

export function addOpen(program: Command): void {
  program
    .command('open')
    .description('open an app in the workbench: starts the server where none runs, reads the folder, opens the page')
    .argument('<folder>', 'the app’s folder')
    .option('--port <port>', 'port of the server on this machine', String(PORT))
    .option('--no-browser', 'print the address instead of opening it')
    .option(...WORKSPACE)
    .option(...STARTS)
    .action(async (folder: string, options: Options, command: Command) => {
      const port = portOf(options.port);
      const whole = wholeFolder(folder);
      const address = `http://127.0.0.1:${port}`;
      const server = (await answers(address)) ? null : await started(address, port);
      try {
        const page = `${address}/p/${await projectOf(address, whole, options)}/startup`;
        const asJson = command.optsWithGlobals().json === true || !process.stdout.isTTY;
        process.stdout.write(asJson ? `${JSON.stringify({ address: page, started: server !== null })}\n` : `${page}\n`);
        if (options.browser) await shown(page);
        if (server === null) return;
        process.stderr.write('the server runs until this ends (Ctrl+C)\n');
        await ended(server);
      } finally {
        server?.kill();
      }
    });
}

function portOf(said: string): number {
  const port = Number(said);
  if (Number.isInteger(port) && port >= 1 && port <= 65_535) return port;
  throw new InputError('Not a port', 'Give a whole number from 1 to 65535.', `--port ${said}`);
}

function wholeFolder(folder: string): string {
  try {
    return fs.realpathSync(folder);
  } catch {
    throw new InputError('No such folder', 'Check the path; it must name a folder on this machine.', folder);
  }
}

/** Whether this program’s server answers there. Throws InputError where something else does. */
async function answers(address: string): Promise<boolean> {
  let answer: Response;
  try {
    answer = await fetch(`${address}/api/projects`, { signal: AbortSignal.timeout(ANSWER_MS) });
  } catch {
    return false;
  }
  const said: unknown = await answer.json().catch(() => null);
  if (answer.ok && Array.isArray(said)) return true;
  throw new InputError(
    'Something else answers there',
    'Another program, or a server that wants a key, has this port. Name another one with --port.',
    address,
  );
}

/** The program’s own folder, as it was installed. */
function home(): string {
  return fileURLToPath(new URL('../..', import.meta.url));
}

/** Where projects are kept: as `YOKELINE_DATA` says, in a clone of the program beside it, else where the system keeps such things. */
function dataFolder(): string {
  const { YOKELINE_DATA, XDG_DATA_HOME, LOCALAPPDATA } = process.env;
  if (YOKELINE_DATA) return YOKELINE_DATA;
  if (!home().includes(`${path.sep}node_modules${path.sep}`)) return path.join(home(), 'data');
  if (XDG_DATA_HOME) return path.join(XDG_DATA_HOME, 'yokeline');
  if (process.platform === 'win32' && LOCALAPPDATA) return path.join(LOCALAPPDATA, 'yokeline');
  const own = process.platform === 'darwin' ? ['Library', 'Application Support'] : ['.local', 'share'];
  return path.join(os.homedir(), ...own, 'yokeline');
}

/** Starts the server, and waits until it answers. */
async function started(address: string, port: number): Promise<ChildProcess> {
  if (!fs.existsSync(path.join(home(), '.next', 'BUILD_ID')))
    throw new InputError(
      'The server isn’t built',
      'Build it once with: npm run build:web (script/start does it too).',
      home(),
    );
  linkPackages();
  const data = dataFolder();
  fs.mkdirSync(data, { recursive: true });
  const env = { ...process.env, YOKELINE_HOME: home(), YOKELINE_DATA: data, NODE_ENV: 'production' as const };
  process.stderr.write('starting the server\n');
  execFileSync(process.execPath, [path.join(home(), 'dist', 'server', 'seed.js')], { env, stdio: 'ignore' });
  const next = fileURLToPath(import.meta.resolve('next/dist/bin/next'));
  const args = [next, 'start', home(), '--hostname', '127.0.0.1', '--port', String(port)];
  const child = spawn(process.execPath, args, {
    env: { ...env, NEXT_TELEMETRY_DISABLED: '1' },
    cwd: home(),
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const until = Date.now() + START_MS;
  while (Date.now() < until && child.exitCode === null) {
    if (await answers(address)) return child;
    await new Promise((wake) => setTimeout(wake, POLL_MS));
  }
  child.kill();
  throw new InputError('The server didn’t start', 'What it said stands above. Another --port may help.', address);
}

/** Makes the links by which the web build finds its packages; see script/web-externals.mjs. */
function linkPackages(): void {
  const build = path.join(home(), '.next');
  const listed = path.join(build, 'externals.json');
  if (!fs.existsSync(listed)) return;
  const folders = createRequire(path.join(home(), 'package.json')).resolve.paths('next') ?? [];
  for (const [alias, name] of Object.entries(JSON.parse(fs.readFileSync(listed, 'utf8')) as Record<string, string>)) {
    const link = path.join(build, 'node_modules', alias);
    const target = folders.map((f) => path.join(f, name)).find((f) => fs.existsSync(f));
    if (fs.existsSync(link) || target === undefined) continue;
    try {
      fs.mkdirSync(path.dirname(link), { recursive: true });
      fs.symlinkSync(target, link, 'junction');
    } catch (error) {
      throw new InputError(
        'The server can’t be prepared',
        `${(error as Error).message}. Install the program where you may write.`,
        link,
      );
    }
  }
}

interface ReadingAnswer {
  id: string;
  state: string;
  read: number;
  projectId: string | null;
  problem: { title: string; detail: string; at?: string } | null;
}

/** The project of a folder: the one that it was read into before, else a new one. */
async function projectOf(address: string, folder: string, options: Options): Promise<string> {
  const projects = (await (await fetch(`${address}/api/projects`)).json()) as { id: string; folder: string | null }[];
  const known = projects.find((p) => p.folder !== null && path.resolve(p.folder) === folder);
  if (known) return known.id;
  const { workspace } = workspaceFrom(options);
  const wanted = {
    folder,
    ...(workspace === undefined ? {} : { workspace }),
    ...(options.start ? { starts: options.start.join('\n') } : {}),
  };
  process.stderr.write(`reading ${folder}\n`);
  let state = await asked<ReadingAnswer>(`${address}/api/readings`, wanted);
  while (state.state === 'reading') {
    await new Promise((wake) => setTimeout(wake, POLL_MS));
    state = await asked<ReadingAnswer>(`${address}/api/readings/${state.id}`);
  }
  if (state.projectId) return state.projectId;
  const { title = 'It wasn’t read', detail = 'Try again.', at } = state.problem ?? {};
  throw new InputError(title, detail, at);
}

async function asked<T>(address: string, body?: object): Promise<T> {
  const answer = await fetch(
    address,
    body && { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) },
  );
  const said = (await answer.json()) as T & { title?: string; detail?: string; at?: string };
  if (answer.ok) return said;
  throw new InputError(said.title ?? 'That didn’t work', said.detail ?? 'Try again.', said.at);
}

/** Opens a page in the person’s browser; where there is none, its address was printed. */
async function shown(page: string): Promise<void> {
  if (process.platform === 'linux' && !process.env.DISPLAY && !process.env.WAYLAND_DISPLAY) return;
  await open(page).catch(() => {});
}

function ended(server: ChildProcess): Promise<void> {
  return new Promise((over) => {
    server.once('exit', () => over());
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => over());
  });
}
