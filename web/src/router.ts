import { createRouter, createWebHistory } from 'vue-router';
import { beginList } from './stages/studies/first-list.js';
import StudiesView from './stages/studies/studies-view.vue';
import { PATH, STAGES } from './stages/stages.js';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    // With what every page needs: a file of its own would make the first page wait once more.
    { path: '/', name: 'studies', component: StudiesView, beforeEnter: () => beginList() },
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
