/** How an item of any menu looks. */
export const MENU_ITEM =
  'flex cursor-default items-baseline justify-between gap-6 rounded px-2.5 py-1 outline-none data-[highlighted]:bg-mark';
