import { createApp } from 'vue'
import { createRouter, createWebHistory } from 'vue-router'
import App from './App.vue'
const router = createRouter({ history: createWebHistory(), routes: [
 { path: '/', component: () => import('./views/Firing.vue') },
 { path: '/glaze', component: () => import('./views/Glaze.vue') } ] })
createApp(App).use(router).mount('#app')
