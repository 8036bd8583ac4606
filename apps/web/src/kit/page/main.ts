import { createApp } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import '../../style.css';
import EmptyState from '../EmptyState.vue';
import KitPage from './KitPage.vue';

// Links lead nowhere here.
const routes = [{ path: '/:all(.*)', component: EmptyState }];
createApp(KitPage)
  .use(createRouter({ history: createMemoryHistory(), routes }))
  .mount('#app');
