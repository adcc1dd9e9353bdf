/** Libraries that are installed for the bench alone; what is used of them is said where they are loaded. */
declare module '@neplex/*';
declare module 'esm-potrace-wasm';
