import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, sep } from 'node:path';
import { build, type Plugin } from 'vite';
import { licences, licencesText } from './licences.ts';

/** What the first shirt is made of. */
const TOUR_PICTURE = '/demo/pictures/crew-crest.jpg';
/** What the application asks for by itself; pictures of the demo are in its job files. */
const isNeeded = (path: string): boolean => path !== '/service-worker.js' && (!path.startsWith('/demo/pictures/') || path === TOUR_PICTURE) && !/^\/demo\/(?!index)\w+\.json$/.test(path);

/** Writes the licences and, when all files of a build are there, the worker that keeps them for use without a network. */
export function offlineBuild(root: string): Plugin {
  let outDir = '';
  return {
    name: 'limner-offline',
    apply: 'build',
    configResolved(config) {
      outDir = join(config.root, config.build.outDir);
    },
    async closeBundle() {
      writeFileSync(join(outDir, 'licences.txt'), licencesText(licences(root)));
      const files = (readdirSync(outDir, { recursive: true, withFileTypes: true })).filter((entry) => entry.isFile()).map((entry) => join(entry.parentPath, entry.name).slice(outDir.length).split(sep).join('/')).filter(isNeeded).sort();
      const hash = createHash('sha256');
      for (const file of files) hash.update(file).update(readFileSync(join(outDir, file)));
      const version = hash.digest('hex').slice(0, 16);
      await build({
        root,
        configFile: false,
        logLevel: 'error',
        define: { __OFFLINE_BUILD__: JSON.stringify({ version, files }) },
        build: { target: 'es2022', outDir, emptyOutDir: false, copyPublicDir: false, rolldownOptions: { input: join(root, 'src/offline/serviceWorker.ts'), output: { entryFileNames: 'service-worker.js', format: 'iife' } } },
      });
    },
  };
}
