import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  optimizeDeps: { include: ['comlink', 'image-size', 'fast-png', 'fflate', 'zod', 'utif2', 'libheif-js/libheif-wasm/libheif.js'] },
  server: { port: 5173, strictPort: false },
});
