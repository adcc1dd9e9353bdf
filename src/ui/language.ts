import { language, LANGUAGES, speak, type Language } from '../core/words/say.ts';
import { textsOf } from '../core/words/texts.ts';

/** Where the chosen language is kept. */
const KEY = 'limner.language';
const isLanguage = (name: string | null): name is Language => (LANGUAGES as readonly (string | null)[]).includes(name);

/** The language that was chosen here, else the first of the browser's own that Limner speaks. */
function languageHere(): Language {
  const chosen = localStorage.getItem(KEY);
  if (isLanguage(chosen)) return chosen;
  return navigator.languages.map((name) => name.slice(0, 2)).find(isLanguage) ?? 'en';
}

/** Takes up the language for this visit; English when its texts cannot be had. */
export async function takeUpLanguage(): Promise<void> {
  const here = languageHere();
  if (here === 'en') return;
  try {
    speak(here, await textsOf(here));
  } catch {
    // Without its texts the application is still of use.
  }
}

/** The language after the one that is spoken. */
export const nextLanguage = (): Language => LANGUAGES[(LANGUAGES.indexOf(language()) + 1) % LANGUAGES.length];

/** Chooses a language for this browser, and loads the page again in it. */
export function chooseLanguage(name: Language): void {
  localStorage.setItem(KEY, name);
  location.reload();
}
