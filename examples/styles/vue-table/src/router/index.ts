import { createRouter, createWebHistory, type RouteRecordRaw } from 'vue-router';
import Walk from '@/views/Walk.vue';
import { yard } from './yard';

const view = (name: string) => () => import(`../views/${name}.vue`);

const routes: RouteRecordRaw[] = [
  { path: '/', name: 'walk', component: Walk, meta: { title: 'The walk' } },
  { path: '/hemp/:bale(\\d+)?', component: view('Hemp') },
  {
    path: '/yard',
    component: () => import('../layouts/YardLayout.vue'),
    children: yard,
  },
  { path: '/tar', components: { default: () => import('../views/Tar.vue'), aside: Walk } },
  { path: '/home', redirect: '/' },
  { path: '/:rest(.*)*', component: () => import('../views/Lost.vue') },
];

export default createRouter({ history: createWebHistory(), routes });
