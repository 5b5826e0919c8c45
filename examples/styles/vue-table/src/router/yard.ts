export const yard = [
  { path: '', component: () => import('../views/Yard.vue') },
  { path: 'coils', component: () => import(/* webpackChunkName: "coils" */ '../views/Coils.vue') },
];
