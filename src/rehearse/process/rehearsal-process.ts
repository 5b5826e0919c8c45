import { InputError } from '../../core/errors.ts';
import { rehearse } from '../rehearse.ts';
import type { FromRehearsal, ToRehearsal } from './messages.ts';

/** Rehearses in a process of its own, beside the server that is asked for it. */
const tell = (message: FromRehearsal) => process.send?.(message);
let stopped = false;

process.on('message', async (message: ToRehearsal) => {
  if ('stop' in message) {
    stopped = true;
    return;
  }
  try {
    tell({
      done: await rehearse(
        message.work,
        (progress) => tell({ progress }),
        () => stopped,
      ),
    });
  } catch (error) {
    if (error instanceof InputError) tell({ refused: error.toJSON() });
    else tell({ broke: error instanceof Error ? error.message : String(error) });
  }
  process.disconnect?.();
});
process.on('disconnect', () => process.exit());
