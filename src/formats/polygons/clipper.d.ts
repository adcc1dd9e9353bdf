/** The package states its types for a file that it does not have. */
declare module 'clipper2-wasm/dist/es/clipper2z.js' {
  import type { Clipper2ZFactoryFunction } from 'clipper2-wasm/dist/clipper2z';

  const start: Clipper2ZFactoryFunction;
  export default start;
}
