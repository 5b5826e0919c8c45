import { Saws } from './saws';

export const list = [
  { path: 'work', lazy: () => import('./work') },
  { path: 'work/saws', Component: Saws },
];
