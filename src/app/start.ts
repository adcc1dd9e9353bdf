import { provideGlobalConfig } from 'element-plus';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import { language } from '../core/words/say.ts';
import { browserEngine } from '../engine/client.ts';
import { DexieStorage } from '../storage/dexieStorage.ts';
import { TabSignal } from '../storage/jobSignal.ts';
import { BUILD } from '../stores/build.ts';
import { provideServices } from '../stores/services.ts';
import { sayInTemplates } from '../ui/sayInTemplates.ts';
import App from './App.vue';
import { makeRouter } from './router.ts';

/** Starts the application in the language that was taken up. */
export async function start(): Promise<void> {
  document.documentElement.lang = language();
  const app = createApp(App).use(sayInTemplates);
  // The components' own words; their types take this for the declaration of a property.
  if (language() === 'de') provideGlobalConfig({ locale: (await import('element-plus/es/locale/lang/de.mjs')).default } as never, app, true);
  provideServices(app, { engine: browserEngine(), storage: new DexieStorage(undefined, BUILD), signal: new TabSignal() });
  app.use(createPinia()).use(makeRouter()).mount('#app');
}
