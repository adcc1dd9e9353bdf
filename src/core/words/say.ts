/**
 * Every text that a person reads goes through here. It is written in English where it is used, and said in the language that was chosen: the English text is
 * the name of its translation, with `{0}`, `{1}` for what is filled in. What has no translation is said in English.
 *
 * The language is set once, before any other module is loaded (`app/main.ts`, `engine/worker.ts`), so that texts may stand in constants.
 */

/** Texts of a language by the English ones. */
export type Words = Readonly<Record<string, string>>;

export const LANGUAGES = ['en', 'de'] as const;
export type Language = (typeof LANGUAGES)[number];

let spoken: Language = 'en';
let words: ReadonlyMap<string, string> = new Map();
const keys = new WeakMap<TemplateStringsArray, string>();

/** Takes up a language and its texts. */
export function speak(language: Language, texts: Words): void {
  spoken = language;
  words = new Map(Object.entries(texts));
}

/** The language that is spoken. */
export const language = (): Language => spoken;

/**
 * A text in the language that is spoken: ``say`${n} films` `` or `say('Films')`. Numbers are written by its rules.
 * @param text English; as a plain text its `{0}`, `{1}` are filled with `values`.
 */
export function say(text: string | TemplateStringsArray, ...values: readonly unknown[]): string {
  const key = typeof text === 'string' ? text : keyOf(text);
  const said = words.get(key) ?? key;
  return values.length === 0 ? said : said.replaceAll(/\{(\d)\}/g, (whole, place: string) => (Number(place) < values.length ? written(values[Number(place)]) : whole));
}

/** A word that another language says in several ways, with what it is about: `sayOf('theme', 'light')`. */
export const sayOf = (about: string, text: string): string => words.get(`${text} (${about})`) ?? text;

function keyOf(parts: TemplateStringsArray): string {
  let key = keys.get(parts);
  if (key === undefined) keys.set(parts, (key = parts.reduce((before, part, k) => `${before}{${k - 1}}${part}`)));
  return key;
}

const written = (value: unknown): string => (typeof value === 'number' ? withMark(String(value)) : String(value ?? ''));

/** A name within a sentence: in small letters where the language writes its nouns so. */
export const inSentence = (name: string): string => (spoken === 'de' ? name : name.toLowerCase());

/** A written number with the decimal mark of the language. */
export const withMark = (number: string): string => (spoken === 'de' ? number.replace('.', ',') : number);

/** A number with a fixed count of decimals. */
export const decimals = (value: number, digits: number): string => withMark(value.toFixed(digits));

/** A whole number, its thousands apart. */
export const grouped = (value: number): string => value.toLocaleString(spoken);

/** So many of something: the word for one, or that for several. */
export const counted = (count: number, one: string, many: string): string => `${grouped(count)} ${count === 1 ? one : many}`;

/** A moment as a date, or a date and time. */
export const dateWords = (at: Date | number, how: Intl.DateTimeFormatOptions): string => new Date(at).toLocaleString(spoken === 'en' ? 'en-GB' : spoken, how);
