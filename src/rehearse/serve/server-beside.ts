import { type ChildProcess, fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { Led } from '../browser/open-browser.ts';
import type { FromServer, Ready, ServerStart, ToServer } from './messages.ts';
import { WARM_HOST } from './server.ts';
import type { Answer, Answering, Request } from './types.ts';

const SCRIPT = fileURLToPath(new URL('./serving-process.js', import.meta.url));
const STDERR_KEPT = 2000;

/** What can’t be answered is told as servers tell it: one answer must not end a rehearsal. */
async function answeredBy(answering: Answering, request: Request): Promise<Answer | null> {
  try {
    return await answering(request);
  } catch (error) {
    const body = Buffer.from(error instanceof Error ? error.message : String(error));
    return { status: 500, type: 'text/plain', body, cache: 'no-store', serverMs: 0 };
  }
}

/** A server with its link in a process beside this one, as built. */
export class ServerBeside {
  private constructor(
    private readonly child: ChildProcess,
    private readonly hosts: readonly string[],
    private readonly ready: Ready,
  ) {}

  /** Starts one; what it isn’t told at the start it asks for. */
  static async start(start: ServerStart, answering: Answering): Promise<ServerBeside> {
    const child = fork(SCRIPT, { stdio: ['ignore', 'ignore', 'pipe', 'ipc'], serialization: 'advanced' });
    let said = '';
    child.stderr!.on('data', (text) => {
      said = (said + text).slice(-STDERR_KEPT);
    });
    const send = (message: ToServer) => child.connected && child.send(message);
    const ready = await new Promise<Ready>((done, fail) => {
      child.on('message', async (message: FromServer) => {
        if ('ports' in message) done(message);
        else send({ to: message.ask, answer: await answeredBy(answering, message.request) });
      });
      child.once('exit', () => fail(new Error(`the server ended at once: ${said}`)));
      send({ start });
    });
    child.removeAllListeners('exit');
    return new ServerBeside(child, start.hosts, ready);
  }

  /** How a browser is led to it: to its hosts over the link, and past it to the page that is shown first. */
  get led(): Led {
    const { ports, direct, fingerprint } = this.ready;
    return {
      hosts: new Map([...this.hosts.map((host, at) => [host, ports[at]] as const), [WARM_HOST, direct]]),
      fingerprint,
      starts: () => this.child.connected && this.child.send({ newcomer: true } satisfies ToServer),
      first: `${this.scheme}://${WARM_HOST}/`,
    };
  }

  get scheme(): 'http' | 'https' {
    return this.ready.fingerprint === null ? 'http' : 'https';
  }

  stop(): void {
    this.child.kill();
  }
}
