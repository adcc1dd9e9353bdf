import type { Language, Words } from './say.ts';

/** What languages are called by those who speak them. */
export const LANGUAGE_NAMES: Readonly<Record<Language, string>> = { en: 'English', de: 'Deutsch' };

/** All texts of a language. English has none beside those where they are used. */
export async function textsOf(language: Language): Promise<Words> {
  return language === 'de' ? (await import('./de.json')).default : {};
}
