import type { Import } from '../core/snapshot/module-types.ts';
import {
  type ComponentUse,
  isClassOfComponents,
  isComponent,
  wrapsComponent,
} from '../reader/script/component-uses.ts';
import { exportedValue } from '../reader/script/exported-value.ts';
import { isFunction, isNode } from '../reader/syntax.ts';
import { type PatchContext, targetOf } from './context.ts';

export const NO_COMPONENT = 'is no component';

/**
 * Why what an import leads to can't be deferred as a component by that name, though it is written like one; null if it can. What is handed on may be
 * anything to whoever gets it, so that it has to be seen to be a component.
 */
export function noComponent(
  context: PatchContext,
  item: Import,
  imported: string,
  uses: ReadonlySet<ComponentUse>,
): string | null {
  const target = context.edits(targetOf(context, item))?.file;
  const found = target ? exportedValue(target.program, imported) : null;
  if (uses.has('handed on') && !(found && isComponent(found))) return NO_COMPONENT;
  if (!found) return uses.has('drawn') || /[a-z]/.test(imported) ? null : NO_COMPONENT;
  if (!uses.has('drawn') && !isFunction(found) && !isClassOfComponents(found) && !wrapsComponent(found))
    return NO_COMPONENT;
  if (isNode(found.typeParameters))
    return 'takes a type of its own, which a deferred component doesn’t give on to whoever draws it';
  return null;
}
