import type { InputError } from '../../core/errors.ts';
import type { Rehearsal } from '../../core/rehearsals/types.ts';
import type { RehearsalProgress, RehearsalWork } from '../rehearse.ts';

/** To a process that rehearses: what, and that it shall stop (what was run by then is given). */
export type ToRehearsal = { work: RehearsalWork } | { stop: true };

/** From it. */
export type FromRehearsal =
  | { progress: RehearsalProgress }
  | { done: Rehearsal }
  | { refused: ReturnType<InputError['toJSON']> }
  | { broke: string };
