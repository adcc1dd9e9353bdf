import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { offlineBuild } from './scripts/offlineBuild.ts';
import { sayTemplates } from './scripts/sayTemplates.ts';

/** Names what results are made by: the sources of the core, the formats and the engine. */
function nameOfBuild(): string {
  const hash = createHash('sha256');
  for (const folder of ['core', 'formats', 'engine']) {
    const at = new URL(`./src/${folder}/`, import.meta.url);
    for (const file of (readdirSync(at, { recursive: true }) as string[]).filter((name) => /(?<!\.test)\.ts$/.test(name)).sort()) hash.update(file).update(readFileSync(new URL(file, at)));
  }
  return hash.digest('hex').slice(0, 16);
}

export default defineConfig(({ command }) => ({
  plugins: [vue({ template: { compilerOptions: { nodeTransforms: [sayTemplates] } } }), offlineBuild(fileURLToPath(new URL('.', import.meta.url)))],
  define: command === 'build' ? { __LIMNER_BUILD__: JSON.stringify(nameOfBuild()) } : {},
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  optimizeDeps: { include: ['comlink', 'image-size', 'fast-png', 'fflate', 'zod', 'utif2', 'libheif-js/libheif-wasm/libheif.js'] },
  server: { port: 5173, strictPort: false },
}));
