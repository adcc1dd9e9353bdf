declare module 'libheif-js/libheif-wasm/libheif.wasm?url' {
  const address: string;
  export default address;
}
