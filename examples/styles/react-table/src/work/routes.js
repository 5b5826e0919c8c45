import { list } from './list';

export const workRoutes = list.map((route) => ({ ...route, handle: { menu: true } }));
