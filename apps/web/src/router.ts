/** The addresses of the page. A stage is an address; what a stage shows is in its query, so it survives a reload. */
import { createRouter, createWebHistory } from 'vue-router';
import { useChanges } from './act/changes.ts';
import { useSession } from './session/store.ts';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/sources' },
    { path: '/sign-in', name: 'sign in', component: () => import('./session/SignInView.vue'), meta: { open: true } },
    { path: '/first', name: 'first', component: () => import('./session/FirstView.vue'), meta: { open: true } },
    { path: '/gather', name: 'gather', component: () => import('./gather/GatherView.vue') },
    { path: '/gather/report/:import', name: 'report', component: () => import('./gather/GatherView.vue') },
    { path: '/gather/log', name: 'log', component: () => import('./gather/GatherView.vue') },
    { path: '/gather/search/:search', name: 'search', component: () => import('./gather/GatherView.vue') },
    { path: '/sources', name: 'sources', component: () => import('./sources/SourcesView.vue') },
    {
      path: '/sources/:source([0-9a-f-]{36})',
      name: 'source',
      component: () => import('./sources/one/SourcePage.vue'),
    },
    { path: '/sources/tags', name: 'vocabulary', component: () => import('./sources/vocabulary/VocabularyView.vue') },
    { path: '/sources/compare', name: 'compare', component: () => import('./sources/collections/CompareView.vue') },
    { path: '/sources/saved', name: 'saved', component: () => import('./sources/saved/SavedView.vue') },
    { path: '/sources/list', name: 'list', component: () => import('./sources/ledger/ShownPage.vue') },
    { path: '/sources/archives', name: 'archives', component: () => import('./sources/archives/ArchivesView.vue') },
    { path: '/sources/history', name: 'activity', component: () => import('./sources/history/ActivityView.vue') },
    { path: '/check/report', name: 'proofing report', component: () => import('./check/ProofReport.vue') },
    { path: '/check/together', name: 'bring together', component: () => import('./check/ConsolidateView.vue') },
    {
      path: '/check/:queue(duplicates|proofing|filing)?',
      name: 'check',
      component: () => import('./check/CheckView.vue'),
    },
    { path: '/read/marks', name: 'marks', component: () => import('./read/across/MarksView.vue') },
    { path: '/read/:source?/:file?', name: 'read', component: () => import('./read/ReadView.vue') },
    { path: '/notes', name: 'notes', component: () => import('./notes/NotesView.vue') },
    { path: '/:rest(.*)*', component: () => import('./app/NotFound.vue') },
  ],
});

router.beforeEach(async (to) => {
  const session = useSession();
  await session.ensure();
  if (!session.user && !to.meta.open) return { name: 'sign in', query: { to: to.fullPath } };
  if (session.user && to.meta.open) return { path: '/sources' };
  return true;
});

/** The address for which the page was loaded anew already: once is enough. */
const ANEW = 'loaded anew';
const answers = (): Promise<boolean> =>
  fetch('/', { method: 'HEAD' }).then(
    (reply) => reply.ok,
    () => false,
  );
// A page from before an upgrade asks for parts that are gone: with the page as it is now they come.
router.onError(async (_error, to) => {
  if (sessionStorage.getItem(ANEW) !== to.fullPath && (await answers())) {
    sessionStorage.setItem(ANEW, to.fullPath);
    location.assign(to.fullPath);
  } else
    useChanges().tell(
      'That part of the page could not be fetched. Nothing was changed; try again in a moment.',
      null,
      true,
    );
});
router.afterEach((_to, _from, failure) => {
  if (!failure) sessionStorage.removeItem(ANEW);
});
