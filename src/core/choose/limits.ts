import { InputError } from '../errors.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import type { Circumstance, Limits } from './types.ts';

/** Throws InputError that names the field for limits that nothing can keep, and for nobody to choose for. */
export function checkWanted(limits: Limits, circumstances: readonly Circumstance[], model: VisitorModel): void {
  const { changes, firstContentMs, interactiveMs, changeMs, wasteBytes } = limits;
  if (!(Number.isInteger(changes) && changes >= 1))
    throw new InputError(
      'Limits that contradict',
      'At most no change at all leaves nothing to choose: allow 1 or more.',
      'changes',
    );
  if (!(firstContentMs >= 0))
    throw new InputError(
      'Limits that contradict',
      'First content later by less than nothing can’t be kept by leaving all as it is: allow 0 ms or more.',
      'firstContentMs',
    );
  if (!(interactiveMs >= 0))
    throw new InputError(
      'Limits that contradict',
      'An answer later by less than nothing can’t be kept by leaving all as it is: allow 0 ms or more.',
      'interactiveMs',
    );
  if (!(changeMs >= 0))
    throw new InputError(
      'Limits that contradict',
      'A change can’t cost less than nothing: give 0 ms or more.',
      'changeMs',
    );
  if (wasteBytes !== null && !(wasteBytes >= 0))
    throw new InputError(
      'Limits that contradict',
      'Fewer bytes than none can’t be wasted: allow 0 or more.',
      'wasteBytes',
    );
  if (circumstances.length === 0 || !(circumstances.reduce((sum, c) => sum + c.share, 0) > 0))
    throw new InputError('An empty mix', 'Give at least one set of conditions a weight above 0.', 'conditions');
  if (!(model.routes.reduce((sum, r) => sum + r.landings, 0) > 0))
    throw new InputError(
      'Nobody comes',
      'No route has any landings, so that no change helps anybody: give one in Inventory or in the visitors’ notes.',
      'visitors',
    );
}
