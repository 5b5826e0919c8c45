import { Slabs } from './slabs';

const all = [
  { path: '', element: <Slabs /> },
  { path: ':slab', lazy: () => import('./slab') },
];

export default all;
