declare const __LIMNER_BUILD__: string | undefined;

/** Names the program that results were made by; absent while developing, when it changes without a name. */
export const BUILD: string | undefined = typeof __LIMNER_BUILD__ === 'string' ? __LIMNER_BUILD__ : undefined;
