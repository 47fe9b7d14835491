/** The places and their addresses. Each is loaded when it is first gone to. */
import { createRouter, createWebHistory } from 'vue-router'
import { useSession } from './shell/session'

export const places = [
  { key: 'sauces', path: '/sauces', name: 'Sauces' },
  { key: 'dishes', path: '/dishes', name: 'Dishes' },
  { key: 'service', path: '/service', name: 'Service' },
  { key: 'run-up', path: '/run-up', name: 'Run-up' },
  { key: 'stove', path: '/stove', name: 'Stove' },
  { key: 'fix', path: '/fix', name: 'Fix it' },
  { key: 'keeping', path: '/keeping', name: 'Keeping' },
  { key: 'journal', path: '/journal', name: 'Journal' },
  { key: 'larder', path: '/larder', name: 'Larder' },
] as const

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/sauces' },
    { path: '/sauces', component: () => import('./places/sauces/Sauces.vue') },
    {
      path: '/sauces/new',
      component: () => import('./places/builder/Builder.vue'),
      props: (to) => ({ start: String(to.query.start ?? '') }),
    },
    {
      path: '/sauces/:id(\\d+)',
      component: () => import('./places/builder/Builder.vue'),
      props: (to) => ({ id: Number(to.params.id) }),
    },
    { path: '/sauces/read', component: () => import('./places/sauces/ReadRecipe.vue') },
    {
      path: '/sauces/:id(\\d+)/card',
      component: () => import('./places/sauces/RecipeCard.vue'),
      props: (to) => ({ id: Number(to.params.id), size: String(to.query.size ?? 'A5') }),
    },
    { path: '/dishes', component: () => import('./places/dishes/Dishes.vue') },
    {
      path: '/dishes/new',
      component: () => import('./places/dishes/Dish.vue'),
      props: (to) => ({ id: null, start: String(to.query.start ?? '') }),
    },
    {
      path: '/dishes/:id(\\d+)',
      component: () => import('./places/dishes/Dish.vue'),
      props: (to) => ({ id: Number(to.params.id), start: '' }),
    },
    { path: '/service', component: () => import('./places/service/Services.vue') },
    {
      path: '/service/:id(\\d+)',
      component: () => import('./places/service/Service.vue'),
      props: (to) => ({ id: Number(to.params.id) }),
    },
    {
      path: '/service/:id(\\d+)/sheet',
      component: () => import('./places/service/PrintSheet.vue'),
      props: (to) => ({ id: Number(to.params.id) }),
    },
    { path: '/run-up', component: () => import('./places/run-up/RunUps.vue') },
    {
      path: '/run-up/:id(\\d+)',
      component: () => import('./places/run-up/RunUp.vue'),
      props: (to) => ({ id: Number(to.params.id) }),
    },
    {
      path: '/run-up/:id(\\d+)/sheets',
      component: () => import('./places/run-up/RunSheets.vue'),
      props: (to) => ({ id: Number(to.params.id) }),
    },
    { path: '/stove', component: () => import('./places/stove/Stove.vue') },
    {
      path: '/stove/:id(\\d+)',
      component: () => import('./places/stove/Batch.vue'),
      props: (to) => ({ id: Number(to.params.id) }),
    },
    { path: '/fix', component: () => import('./places/fix/Fix.vue') },
    { path: '/keeping', component: () => import('./places/keeping/Keeping.vue') },
    { path: '/keeping/record', component: () => import('./places/keeping/Record.vue') },
    {
      path: '/keeping/put/:batch(\\d+)',
      component: () => import('./places/keeping/PutAway.vue'),
      props: (to) => ({ batch: Number(to.params.batch) }),
    },
    {
      path: '/keeping/:id(\\d+)',
      component: () => import('./places/keeping/KeptOne.vue'),
      props: (to) => ({ id: Number(to.params.id) }),
    },
    { path: '/journal', component: () => import('./places/journal/Journal.vue') },
    { path: '/journal/learning', component: () => import('./places/journal/Learning.vue') },
    { path: '/journal/weeks', component: () => import('./places/journal/Weeks.vue') },
    { path: '/journal/practice', component: () => import('./places/journal/Practice.vue') },
    {
      path: '/journal/beside',
      component: () => import('./places/journal/Beside.vue'),
      props: (to) => ({ one: Number(to.query.one), other: Number(to.query.other) }),
    },
    { path: '/larder', component: () => import('./places/larder/Larder.vue') },
    { path: '/kitchen', component: () => import('./places/kitchen/Kitchen.vue') },
    {
      path: '/join/:token',
      component: () => import('./places/entry/Join.vue'),
      props: (to) => ({ token: String(to.params.token) }),
    },
    { path: '/begin', component: () => import('./places/entry/Begin.vue') },
    { path: '/enter', component: () => import('./places/entry/Enter.vue') },
    { path: '/:rest(.*)*', component: () => import('./places/entry/Lost.vue') },
  ],
})

router.beforeEach(async (to) => {
  const session = useSession()
  await session.know()
  if (!session.who?.username && to.path !== '/enter' && !to.path.startsWith('/join/')) {
    return { path: '/enter', query: to.path === '/sauces' ? {} : { next: to.fullPath } }
  }
  return true
})
