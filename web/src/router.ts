import { createRouter, createWebHistory } from 'vue-router';
import { PATH, STAGES } from './stages/stages.js';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'studies', component: () => import('./stages/studies/studies-view.vue') },
    {
      path: '/distributions',
      name: 'distributions',
      component: () => import('./stages/distributions/distributions-page.vue'),
    },
    { path: '/help', name: 'help', component: () => import('./help/help-page.vue') },
    { path: '/jobs', name: 'jobs', component: () => import('./jobs/jobs-view.vue') },
    {
      path: '/studies/:id',
      component: () => import('./components/study-frame.vue'),
      props: true,
      children: [
        { path: '', redirect: { name: PATH[0]!.name } },
        { path: 'sheet', name: 'sheet', component: () => import('./sheet/sheet-view.vue') },
        ...STAGES.map(({ name, path, view }) => ({ path: path ?? name, name, component: view })),
      ],
    },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./components/nowhere-view.vue') },
  ],
});
