import { createRouter, createWebHistory } from 'vue-router';
import { whoIsThere } from '@/areas/people/session';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    {
      path: '/sign-in',
      component: () => import('@/areas/people/pages/SignInPage.vue'),
      meta: { open: true, title: 'Sign in' },
    },
    {
      path: '/join',
      component: () => import('@/areas/people/pages/JoinPage.vue'),
      meta: { open: true, title: 'Join' },
    },
    {
      path: '/begin',
      component: () => import('@/areas/people/pages/BeginPage.vue'),
      meta: { open: true, title: 'Set a password' },
    },
    {
      path: '/forgot',
      component: () => import('@/areas/people/pages/ForgotPage.vue'),
      meta: { open: true, title: 'Another password' },
    },
    {
      path: '/account',
      component: () => import('@/areas/people/pages/AccountPage.vue'),
      meta: { bare: true, title: 'Your account' },
    },
    {
      path: '/installation',
      component: () => import('@/areas/people/pages/InstallationPage.vue'),
      meta: { bare: true, title: 'Installation' },
    },
    {
      path: '/words',
      component: () => import('@/frame/WordsPage.vue'),
      meta: { open: true, greets: true, bare: true, title: 'Words' },
    },
    {
      path: '/docs/:page?',
      component: () => import('@/frame/DocsPage.vue'),
      meta: { open: true, greets: true, bare: true, title: 'Documentation' },
    },
    { path: '/', component: () => import('@/areas/people/pages/HomePage.vue'), meta: { bare: true } },
    {
      path: '/:project/today',
      component: () => import('@/areas/today/pages/TodayPage.vue'),
      meta: { title: 'Today' },
    },
    {
      path: '/:project/cycles',
      component: () => import('@/areas/cycles/pages/CyclesPage.vue'),
      meta: { title: 'Cycles' },
    },
    {
      path: '/:project/cycles/new',
      component: () => import('@/areas/cycles/pages/NewCyclePage.vue'),
      meta: { title: 'New cycle' },
    },
    {
      path: '/:project/cycles/:cycle/plan',
      component: () => import('@/areas/cycles/pages/PlanPage.vue'),
      meta: { title: 'Plan' },
    },
    {
      path: '/:project/cycles/:cycle/paths',
      component: () => import('@/areas/cycles/pages/PathsPage.vue'),
      meta: { title: 'Paths' },
    },
    {
      path: '/:project/cycles/:cycle/log',
      component: () => import('@/areas/cycles/pages/LogPage.vue'),
      meta: { title: 'Log' },
    },
    {
      path: '/:project/cycles/:cycle/compare',
      component: () => import('@/areas/cycles/pages/ComparePage.vue'),
      meta: { title: 'Compared' },
    },
    {
      path: '/:project/compare',
      component: () => import('@/areas/cycles/pages/ComparePage.vue'),
      meta: { title: 'Compared' },
    },
    {
      path: '/:project/queue',
      component: () => import('@/areas/walk/pages/QueuePage.vue'),
      meta: { title: 'Waits for a lead' },
    },
    {
      path: '/:project/cycles/:cycle',
      component: () => import('@/areas/cycles/pages/BoardPage.vue'),
      meta: { title: 'Cycle' },
    },
    {
      path: '/:project/entries/:entry',
      component: () => import('@/areas/walk/pages/EntryPage.vue'),
      meta: { title: 'Entry' },
    },
    {
      path: '/:project/casebook',
      component: () => import('@/areas/casebook/pages/CasebookPage.vue'),
      meta: { title: 'Casebook' },
    },
    {
      path: '/:project/casebook/routines',
      component: () => import('@/areas/casebook/pages/RoutinesPage.vue'),
      meta: { title: 'Routines' },
    },
    {
      path: '/:project/casebook/routines/:routine',
      component: () => import('@/areas/casebook/pages/RoutinePage.vue'),
      meta: { title: 'Routine' },
    },
    {
      path: '/:project/casebook/tables',
      component: () => import('@/areas/casebook/pages/TablesPage.vue'),
      meta: { title: 'Data tables' },
    },
    {
      path: '/:project/casebook/tables/:table',
      component: () => import('@/areas/casebook/pages/TablePage.vue'),
      meta: { title: 'Data table' },
    },
    {
      path: '/:project/casebook/desk',
      component: () => import('@/areas/casebook/pages/DeskPage.vue'),
      meta: { title: 'Desk' },
    },
    {
      path: '/:project/casebook/bin',
      component: () => import('@/areas/casebook/pages/BinPage.vue'),
      meta: { title: 'Bin' },
    },
    {
      path: '/:project/casebook/import',
      component: () => import('@/areas/casebook/pages/ImportPage.vue'),
      meta: { title: 'Bring in' },
    },
    {
      path: '/:project/casebook/:case/history',
      component: () => import('@/areas/casebook/pages/HistoryPage.vue'),
      meta: { title: 'History' },
    },
    {
      path: '/:project/setup/planning',
      component: () => import('@/areas/setup/pages/PlanningPage.vue'),
      meta: { title: 'Setup, planning' },
    },
    {
      path: '/:project/setup/people',
      component: () => import('@/areas/people/pages/PeoplePage.vue'),
      meta: { title: 'Setup, people' },
    },
    {
      path: '/:project/setup/log',
      component: () => import('@/areas/setup/pages/SetupLogPage.vue'),
      meta: { title: 'Setup, log' },
    },
    {
      path: '/:project/setup/walking',
      component: () => import('@/areas/setup/pages/WalkingPage.vue'),
      meta: { title: 'Setup, walking' },
    },
    {
      path: '/mail',
      component: () => import('@/areas/mail/pages/MailsPage.vue'),
      meta: { bare: true, title: 'Caught mails' },
    },
    {
      path: '/:project/setup',
      component: () => import('@/areas/setup/pages/SetupPage.vue'),
      meta: { title: 'Setup' },
    },
    {
      path: '/:project/setup/defects',
      component: () => import('@/areas/setup/pages/DefectSetupPage.vue'),
      meta: { title: 'Setup, defects' },
    },
    {
      path: '/:project/casebook/:case',
      component: () => import('@/areas/casebook/pages/CasePage.vue'),
      meta: { title: 'Case' },
    },
    {
      path: '/:project/sessions',
      component: () => import('@/areas/sessions/pages/SessionsPage.vue'),
      meta: { title: 'Sessions' },
    },
    {
      path: '/:project/sessions/new',
      component: () => import('@/areas/sessions/pages/NewCharterPage.vue'),
      meta: { title: 'New session' },
    },
    {
      path: '/:project/sessions/figures',
      component: () => import('@/areas/sessions/pages/FiguresPage.vue'),
      meta: { title: 'Figures of sessions' },
    },
    {
      path: '/:project/sessions/:charter/sheet',
      component: () => import('@/areas/sessions/pages/SheetPage.vue'),
      meta: { title: 'Session sheet' },
    },
    {
      path: '/:project/sessions/:charter',
      component: () => import('@/areas/sessions/pages/SessionPage.vue'),
      meta: { title: 'Session' },
    },
    {
      path: '/:project/sessions/:charter/lines/:line',
      component: () => import('@/areas/sessions/pages/ReproPage.vue'),
      meta: { title: 'What led there' },
    },
    {
      path: '/:project/coverage',
      component: () => import('@/areas/coverage/pages/CoveragePage.vue'),
      meta: { title: 'Coverage' },
    },
    {
      path: '/:project/trace/:kind/:id',
      component: () => import('@/areas/coverage/pages/TracePage.vue'),
      meta: { title: 'Trace' },
    },
    {
      path: '/:project/coverage/import',
      component: () => import('@/areas/coverage/pages/RequirementImportPage.vue'),
      meta: { title: 'Bring requirements in' },
    },
    {
      path: '/:project/coverage/:requirement',
      component: () => import('@/areas/coverage/pages/RequirementPage.vue'),
      meta: { title: 'Requirement' },
    },
    {
      path: '/:project/defects',
      component: () => import('@/areas/defects/pages/DefectsPage.vue'),
      meta: { title: 'Defects' },
    },
    {
      path: '/:project/defects/new',
      component: () => import('@/areas/defects/pages/NewDefectPage.vue'),
      meta: { title: 'New defect' },
    },
    {
      path: '/:project/defects/:defect',
      component: () => import('@/areas/defects/pages/DefectPage.vue'),
      meta: { title: 'Defect' },
    },
    {
      path: '/:project/walk/:attempt',
      component: () => import('@/areas/walk/pages/WalkPage.vue'),
      meta: { title: 'Walk' },
    },
    {
      path: '/:any(.*)*',
      component: () => import('@/areas/people/pages/LostPage.vue'),
      meta: { open: true, bare: true, title: 'Not found' },
    },
  ],
});

router.beforeEach(async (to) => {
  // Pages for everybody show who one is, where that is known.
  if (to.meta.open && to.meta.greets) await whoIsThere().catch(() => null);
  if (to.meta.open) return true;
  return (await whoIsThere()) ? true : { path: '/sign-in', query: { to: to.fullPath } };
});

router.afterEach((to) => {
  document.title = to.meta.title ? `${String(to.meta.title)} – Lucid Step` : 'Lucid Step';
});
