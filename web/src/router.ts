import { createRouter, createWebHistory } from 'vue-router';
import { beginList } from './stages/studies/first-list.js';
import { PATH, STAGES } from './stages/stages.js';

function studies() {
  beginList();
  return import('./stages/studies/studies-view.vue');
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'studies', component: studies },
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
