import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-sans/400.css';
import '@fontsource/ibm-plex-sans/500.css';
import '@fontsource/ibm-plex-sans/600.css';
import '@fontsource/ibm-plex-serif/400.css';
import '@fontsource/ibm-plex-serif/500.css';
import 'element-plus/theme-chalk/dark/css-vars.css';
import 'element-plus/es/components/message/style/css';
import './styles/tokens.css';
import './styles/base.css';
import './styles/fields.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import VerdictApp from './verdict-app.vue';
import { router } from './router.js';

createApp(VerdictApp).use(createPinia()).use(router).mount('#app');
