import { createApp } from 'vue';
import '../../style.css';
import KitPage from './KitPage.vue';

createApp(KitPage).mount('#app');
