'use client';

import { later } from '../later.tsx';
import { useRowMenu } from './row-menu.ts';

const MenuSheet = later(() => import('./menu-sheet.tsx').then((m) => m.MenuSheet));

/** Where menus of rows appear, on every page; their code is fetched with the first of them. */
export function RowMenus() {
  const menu = useRowMenu((s) => s.menu);
  return menu ? <MenuSheet menu={menu} onClose={() => useRowMenu.setState({ menu: null })} /> : null;
}
