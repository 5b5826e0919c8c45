import { type ChildProcess, fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { RelayedLink } from './relay.ts';

const SCRIPT = fileURLToPath(new URL('./relay-process.js', import.meta.url));

/** A relay that runs beside this process, as built. */
export class RelayBeside {
  private constructor(
    private readonly child: ChildProcess,
    readonly port: number,
  ) {}

  /** Starts one to a port of this machine. */
  static async start(link: RelayedLink, target: number): Promise<RelayBeside> {
    const { tls, rttMs, downKbps, upKbps, dnsMs, queuePackets, lossPercent, lossSeed } = link;
    const known = { tls, rttMs, downKbps, upKbps, dnsMs, queuePackets, lossPercent, lossSeed };
    const child = fork(SCRIPT, [JSON.stringify({ link: known, target })], {
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    });
    let said = '';
    child.stderr!.on('data', (text) => {
      said = (said + text).slice(-2000);
    });
    const port = await new Promise<number>((done, fail) => {
      child.once('message', ({ port }: { port: number }) => done(port));
      child.once('exit', () => fail(new Error(`the link ended at once: ${said}`)));
    });
    return new RelayBeside(child, port);
  }

  stop(): void {
    this.child.removeAllListeners('exit');
    this.child.kill();
  }
}
