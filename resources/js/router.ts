import { createRouter, createWebHistory } from 'vue-router';
import { whoIsThere } from './kit/session';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    {
      path: '/sign-in',
      component: () => import('./areas/people/SignInPage.vue'),
      meta: { open: true, title: 'Sign in' },
    },
    { path: '/', component: () => import('./areas/people/HomePage.vue') },
    {
      path: '/:project/today',
      component: () => import('./areas/today/TodayPage.vue'),
      meta: { title: 'Today' },
    },
    {
      path: '/:project/cycles',
      component: () => import('./areas/cycles/CyclesPage.vue'),
      meta: { title: 'Cycles' },
    },
    {
      path: '/:project/cycles/new',
      component: () => import('./areas/cycles/NewCyclePage.vue'),
      meta: { title: 'New cycle' },
    },
    {
      path: '/:project/cycles/:cycle/plan',
      component: () => import('./areas/cycles/PlanPage.vue'),
      meta: { title: 'Plan' },
    },
    {
      path: '/:project/cycles/:cycle/paths',
      component: () => import('./areas/cycles/PathsPage.vue'),
      meta: { title: 'Paths' },
    },
    {
      path: '/:project/cycles/:cycle/log',
      component: () => import('./areas/cycles/LogPage.vue'),
      meta: { title: 'Log' },
    },
    {
      path: '/:project/cycles/:cycle/compare',
      component: () => import('./areas/cycles/ComparePage.vue'),
      meta: { title: 'Compared' },
    },
    {
      path: '/:project/queue',
      component: () => import('./areas/cycles/QueuePage.vue'),
      meta: { title: 'Waits for a lead' },
    },
    {
      path: '/:project/cycles/:cycle',
      component: () => import('./areas/cycles/BoardPage.vue'),
      meta: { title: 'Cycle' },
    },
    {
      path: '/:project/entries/:entry',
      component: () => import('./areas/cycles/EntryPage.vue'),
      meta: { title: 'Entry' },
    },
    {
      path: '/:project/casebook',
      component: () => import('./areas/casebook/CasebookPage.vue'),
      meta: { title: 'Casebook' },
    },
    {
      path: '/:project/casebook/routines',
      component: () => import('./areas/casebook/RoutinesPage.vue'),
      meta: { title: 'Routines' },
    },
    {
      path: '/:project/casebook/routines/:routine',
      component: () => import('./areas/casebook/RoutinePage.vue'),
      meta: { title: 'Routine' },
    },
    {
      path: '/:project/casebook/tables',
      component: () => import('./areas/casebook/TablesPage.vue'),
      meta: { title: 'Data tables' },
    },
    {
      path: '/:project/casebook/tables/:table',
      component: () => import('./areas/casebook/TablePage.vue'),
      meta: { title: 'Data table' },
    },
    {
      path: '/:project/casebook/desk',
      component: () => import('./areas/casebook/DeskPage.vue'),
      meta: { title: 'Desk' },
    },
    {
      path: '/:project/casebook/bin',
      component: () => import('./areas/casebook/BinPage.vue'),
      meta: { title: 'Bin' },
    },
    {
      path: '/:project/casebook/import',
      component: () => import('./areas/casebook/ImportPage.vue'),
      meta: { title: 'Bring in' },
    },
    {
      path: '/:project/casebook/:case/history',
      component: () => import('./areas/casebook/HistoryPage.vue'),
      meta: { title: 'History' },
    },
    {
      path: '/:project/setup/planning',
      component: () => import('./areas/setup/PlanningPage.vue'),
      meta: { title: 'Setup, planning' },
    },
    {
      path: '/:project/setup/walking',
      component: () => import('./areas/setup/WalkingPage.vue'),
      meta: { title: 'Setup, walking' },
    },
    {
      path: '/mail',
      component: () => import('./areas/people/MailsPage.vue'),
      meta: { title: 'Caught mails' },
    },
    {
      path: '/:project/setup',
      component: () => import('./areas/setup/SetupPage.vue'),
      meta: { title: 'Setup' },
    },
    {
      path: '/:project/casebook/:case',
      component: () => import('./areas/casebook/CasePage.vue'),
      meta: { title: 'Case' },
    },
    {
      path: '/:project/defects',
      component: () => import('./areas/defects/DefectsPage.vue'),
      meta: { title: 'Defects' },
    },
    {
      path: '/:project/defects/:defect',
      component: () => import('./areas/defects/DefectPage.vue'),
      meta: { title: 'Defect' },
    },
    {
      path: '/:project/walk/:attempt',
      component: () => import('./walk/WalkPage.vue'),
      meta: { title: 'Walk' },
    },
    {
      path: '/:any(.*)*',
      component: () => import('./areas/people/LostPage.vue'),
      meta: { open: true, title: 'Not found' },
    },
  ],
});

router.beforeEach(async (to) => {
  if (to.meta.open) return true;
  return (await whoIsThere()) ? true : { path: '/sign-in', query: { to: to.fullPath } };
});

router.afterEach((to) => {
  document.title = to.meta.title ? `${String(to.meta.title)} – Lucid Step` : 'Lucid Step';
});
