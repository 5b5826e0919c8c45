import Layout from '@/layout/Main.vue';
const Home = () => import(/* webpackChunkName: "home" */ '@/views/Home.vue');
export default [
  { path: '/', component: Layout, children: [ { path: '', name: 'home', component: Home }, { path: 'kiln/:id', component: () => import('@/views/Kiln.vue'), meta: { title: 'x' } } ] },
  { path: '/login', component: () => import('@/views/Login') },
  { path: '*', redirect: '/' },
];
