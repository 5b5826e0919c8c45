/** Fields, open menus and dialogs take the keys themselves. */
const TAKES_KEYS = 'input, textarea, select, [data-radix-popper-content-wrapper], [role=dialog]';

/** Whether a key press is meant for what has the focus, and not for the workbench. */
export function isTakenElsewhere(event: KeyboardEvent): boolean {
  return event.target instanceof Element && event.target.closest(TAKES_KEYS) !== null;
}
