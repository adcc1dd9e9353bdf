import { speak, type Language } from '../core/words/say.ts';
import { textsOf } from '../core/words/texts.ts';

/*
 * The worker's door. Texts stand in constants of what it loads: its language, given in its name, is taken up first, and calls that come in meanwhile wait.
 */
const early: MessageEvent[] = [];
const wait = (event: MessageEvent): void => {
  event.stopImmediatePropagation();
  early.push(event);
};
self.addEventListener('message', wait);
const language = self.name.split('-')[1] as Language;
if (language !== 'en') speak(language, await textsOf(language).catch(() => ({})));
const { answerCalls } = await import('./answerCalls.ts');
answerCalls(self.name.split('-')[0]);
self.removeEventListener('message', wait);
for (const { data, ports } of early) self.dispatchEvent(new MessageEvent('message', { data, ports: [...ports] }));
