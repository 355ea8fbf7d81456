import { nextTick } from 'vue'
import { createRouter, createWebHistory } from 'vue-router'
import { house } from './house'
import Desk from './pages/Desk.vue'

export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    { path: '/', component: Desk, meta: { title: 'Desk' } },
    { path: '/series', component: () => import('./pages/SeriesList.vue'), meta: { title: 'Series' } },
    { path: '/series/new', component: () => import('./pages/SeriesNew.vue'), meta: { title: 'New series' } },
    { path: '/series/:id', component: () => import('./pages/SeriesPage.vue'), props: true, meta: { title: 'Series' } },
    {
      path: '/series/:id/catching-up',
      component: () => import('./pages/CatchingUp.vue'),
      props: true,
      meta: { title: 'Catching up' },
    },
    {
      path: '/series/:id/now',
      component: () => import('./pages/SeriesNow.vue'),
      props: true,
      meta: { title: 'Sheet' },
    },
    { path: '/meetings/:id', component: () => import('./pages/SheetPage.vue'), props: true, meta: { title: 'Sheet' } },
    {
      path: '/meetings/:id/chair',
      component: () => import('./pages/ChairPage.vue'),
      props: true,
      meta: { title: 'For the chair' },
    },
    { path: '/actions', component: () => import('./pages/Actions.vue'), meta: { title: 'Actions' } },
    {
      path: '/strands',
      component: () => import('./pages/AllStrands.vue'),
      meta: { title: 'What carries over' },
    },
    { path: '/decisions', component: () => import('./pages/Decisions.vue'), meta: { title: 'Decisions' } },
    { path: '/search', component: () => import('./pages/Search.vue'), meta: { title: 'Search' } },
    { path: '/common-time', component: () => import('./pages/CommonTime.vue'), meta: { title: 'Common time' } },
    { path: '/asking', component: () => import('./pages/Asking.vue'), meta: { title: 'Times asked for' } },
    { path: '/asking/new', component: () => import('./pages/AskTimes.vue'), meta: { title: 'Ask for times' } },
    { path: '/asking/:id', component: () => import('./pages/PollPage.vue'), props: true, meta: { title: 'Times' } },
    { path: '/open-hours', component: () => import('./pages/OpenHoursList.vue'), meta: { title: 'Open hours' } },
    {
      path: '/open-hours/new',
      component: () => import('./pages/OpenHoursForm.vue'),
      meta: { title: 'New open hours' },
    },
    {
      path: '/open-hours/:id',
      component: () => import('./pages/OpenHoursPage.vue'),
      props: true,
      meta: { title: 'Open hours' },
    },
    {
      path: '/open-hours/:id/edit',
      component: () => import('./pages/OpenHoursForm.vue'),
      props: true,
      meta: { title: 'Open hours' },
    },
    { path: '/now', component: () => import('./pages/StartNow.vue'), meta: { title: 'Start one now' } },
    { path: '/people', component: () => import('./pages/People.vue'), meta: { title: 'People & places' } },
    { path: '/me', component: () => import('./pages/Me.vue'), meta: { title: 'My hours and calendars' } },
    { path: '/people/:id', component: () => import('./pages/PersonPage.vue'), props: true, meta: { title: 'Person' } },
    { path: '/places/:id', component: () => import('./pages/PlacePage.vue'), props: true, meta: { title: 'Place' } },
    {
      path: '/answer/:id/:personId/:token',
      component: () => import('./pages/AnswerPage.vue'),
      props: true,
      meta: { title: 'Your answer', open: true },
    },
    {
      path: '/action/:id/:personId/:token',
      component: () => import('./pages/ActionPage.vue'),
      props: true,
      meta: { title: 'Your action', open: true },
    },
    {
      path: '/preparation/:id/:token',
      component: () => import('./pages/PreparationPage.vue'),
      props: true,
      meta: { title: 'To be ready', open: true },
    },
    {
      path: '/no-call',
      component: () => import('./pages/CallNotice.vue'),
      meta: { title: 'Call', open: true },
    },
    {
      path: '/call-soon',
      component: () => import('./pages/CallNotice.vue'),
      props: { soon: true },
      meta: { title: 'Call', open: true },
    },
    {
      path: '/sign-in/:token',
      component: () => import('./pages/SignInLink.vue'),
      props: true,
      meta: { title: 'Choose a password', open: true },
    },
    { path: '/:rest(.*)*', component: () => import('./pages/Nothing.vue'), meta: { title: 'Nothing here' } },
  ],
})

// Outside it is the page of the organisation. On another page the hand and the reading voice begin at its top, unless
// the page itself says where.
router.afterEach((to, from, failure) => {
  if (!failure && from.matched.length && to.path !== from.path) {
    void nextTick(() => {
      const main = document.getElementById('main')
      if (main && !main.contains(document.activeElement)) main.focus({ preventScroll: true })
    })
  }
  document.title = `${String(to.meta.title)} – ${(to.meta.open && house) || 'Left Over'}`
})
