import { mkdirSync, readdirSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { bin, changedAt, root, run } from './setup.mjs';

/** Latest change below a folder or of a file. */
function latest(path) {
  const at = join(root, path);
  if (changedAt(at) === 0) return 0;
  if (!statSync(at).isDirectory()) return changedAt(at);
  return Math.max(0, ...readdirSync(at).map((name) => latest(join(path, name))));
}

/** Draws the demo when its sources are newer than it, or it is missing. */
export function ensureDemo() {
  const made = changedAt(join(root, 'public/demo/index.json'));
  if (made > 0 && made >= Math.max(latest('demo'), latest('src/core/job'), latest('src/formats/archive'))) return;
  process.stderr.write('Drawing the demo pictures...\n');
  run(process.execPath, ['--import', 'tsx', 'demo/build.ts']);
}

/** Builds the application when its sources are newer than the build, or there is none. */
export function ensureBuild() {
  ensureDemo();
  const built = changedAt(join(root, 'dist/index.html'));
  if (built > 0 && built >= Math.max(latest('src'), latest('public'), latest('index.html'), latest('vite.config.ts'), latest('package-lock.json'))) return;
  process.stderr.write('Building...\n');
  run(process.execPath, [bin('vite'), 'build', '--logLevel', 'warn']);
}

/**
 * Bundles the command when its sources are newer than the bundle, or there is none: one file starts in a third of the time that the sources take.
 * Gives the bundle's address. It is renamed into place, so that commands started side by side never see half of one.
 */
export async function ensureCommand() {
  const bundle = join(root, 'build/limner.mjs');
  const sources = ['cli', 'src/core', 'src/formats', 'src/engine', 'package-lock.json'];
  if (changedAt(bundle) < Math.max(...sources.map(latest))) {
    const { build } = await import('vite');
    const fileName = `limner-${process.pid}.mjs`;
    mkdirSync(join(root, 'build'), { recursive: true });
    const output = { entryFileNames: fileName, codeSplitting: false };
    await build({ root, configFile: false, logLevel: 'error', build: { ssr: join(root, 'cli/limner.ts'), target: 'node20', outDir: 'build', emptyOutDir: false, copyPublicDir: false, rolldownOptions: { output } } });
    renameSync(join(root, 'build', fileName), bundle);
  }
  return pathToFileURL(bundle).href;
}
