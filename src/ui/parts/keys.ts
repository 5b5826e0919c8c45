/** Fields, open menus and dialogs take the keys themselves. */
const TAKES_KEYS = 'input, textarea, select, [data-radix-popper-content-wrapper], [role=dialog]';

/** Texts have an undo of their own; ticks, sliders and choices have none. */
const HAS_UNDO = 'input:not([type=checkbox], [type=radio], [type=range]), textarea, [role=dialog]';

/** Whether undo is meant for what has the focus. */
export function hasOwnUndo(event: KeyboardEvent): boolean {
  return event.target instanceof Element && event.target.closest(HAS_UNDO) !== null;
}

/** Whether a key press is meant for what has the focus, and not for the workbench. */
export function isTakenElsewhere(event: KeyboardEvent): boolean {
  return event.target instanceof Element && event.target.closest(TAKES_KEYS) !== null;
}
