import './styles.ts';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import { browserEngine } from '../engine/client.ts';
import { DexieStorage } from '../storage/dexieStorage.ts';
import { TabSignal } from '../storage/jobSignal.ts';
import { BUILD } from '../stores/build.ts';
import { provideServices } from '../stores/services.ts';
import App from './App.vue';
import { makeRouter } from './router.ts';

const app = createApp(App);
provideServices(app, { engine: browserEngine(), storage: new DexieStorage(undefined, BUILD), signal: new TabSignal() });
app.use(createPinia()).use(makeRouter()).mount('#app');
