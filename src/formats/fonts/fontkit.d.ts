/** What is used of the font library is declared in `fontFace.ts`. */
declare module 'fontkit';
