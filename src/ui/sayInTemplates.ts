import type { Plugin } from 'vue';
import { say } from '../core/words/say.ts';

declare module 'vue' {
  interface ComponentCustomProperties {
    $say: typeof say;
  }
}

/** Makes `$say` known in templates. What is written there as text comes to it by itself (scripts/sayTemplates.ts). */
export const sayInTemplates: Plugin = {
  install: (app) => {
    app.config.globalProperties['$say'] = say;
  },
};
