import { type ChildProcess, fork } from 'node:child_process';
import { InputError } from '../../core/errors.ts';
import type { Rehearsal } from '../../core/rehearsals/types.ts';
import type { RehearsalProgress, RehearsalWork } from '../rehearse.ts';
import type { FromRehearsal, ToRehearsal } from './messages.ts';

/** A rehearsal that goes on in a process of its own. */
export interface RunningRehearsal {
  /** What was measured; rejects with an InputError where it can’t be run. */
  done: Promise<Rehearsal>;
  /** Ends it after the run that goes on; one that doesn’t end then is ended. */
  stop(): void;
}

const STDERR_KEPT = 4000;
/** A process that was asked to stop is ended after so long, in ms. */
const PATIENCE_MS = 20_000;

/** Rehearses beside this process. `script`: the file in which the process begins, `rehearsal-process.js` as built. */
export function runRehearsal(
  work: RehearsalWork,
  script: string,
  progress: (at: RehearsalProgress) => void,
): RunningRehearsal {
  const child = fork(script, { stdio: ['ignore', 'ignore', 'pipe', 'ipc'], serialization: 'advanced' });
  const send = (message: ToRehearsal) => child.connected && child.send(message);
  const done = new Promise<Rehearsal>((give, fail) => {
    let said = '';
    child.stderr!.on('data', (text) => {
      said = (said + text).slice(-STDERR_KEPT);
    });
    child.on('message', (message: FromRehearsal) => {
      if ('progress' in message) progress(message.progress);
      else if ('done' in message) give(message.done);
      else if ('refused' in message) {
        const { title, detail, at } = message.refused;
        fail(new InputError(title, detail, at));
      } else fail(new InputError('The rehearsal broke off', message.broke));
    });
    child.once('exit', () => fail(new InputError('The rehearsal ended early', lastLine(said))));
    send({ work });
  });
  return { done, stop: () => stopped(child, send) };
}

function stopped(child: ChildProcess, send: (message: ToRehearsal) => void): void {
  send({ stop: true });
  setTimeout(() => child.kill(), PATIENCE_MS).unref();
}

function lastLine(said: string): string {
  return said.trim().split('\n').at(-1) || 'Its process ended without a word. Try again.';
}
