import { createRouter, createWebHistory } from 'vue-router';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'studies', component: () => import('./stages/studies/studies-view.vue') },
    {
      path: '/distributions',
      name: 'distributions',
      component: () => import('./stages/distributions/distributions-page.vue'),
    },
    {
      path: '/studies/:id',
      component: () => import('./components/study-frame.vue'),
      props: true,
      children: [
        { path: '', redirect: { name: 'readings' } },
        { path: 'readings', name: 'readings', component: () => import('./stages/readings/readings-view.vue') },
        { path: 'shape', name: 'shape', component: () => import('./stages/shape/shape-view.vue') },
        { path: 'fit', name: 'fit', component: () => import('./stages/fit/fit-view.vue') },
        {
          path: 'distributions',
          name: 'study-distributions',
          component: () => import('./stages/distributions/distributions-view.vue'),
        },
        { path: 'verdict', name: 'verdict', component: () => import('./stages/verdict/verdict-view.vue') },
      ],
    },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./components/nowhere-view.vue') },
  ],
});
