import { mkdirSync, readdirSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
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
  if (built > 0 && built >= Math.max(latest('src'), latest('public'), latest('index.html'), latest('vite.config.ts'), latest('scripts'), latest('package-lock.json'))) return;
  process.stderr.write('Building...\n');
  run(process.execPath, [bin('vite'), 'build', '--logLevel', 'warn']);
}

/** What the command loads from its packages as it is: native code, and libraries that bring files along. */
const LOADED_APART = ['sharp', '@resvg/resvg-wasm', 'libheif-js'];

/** Bundles a program for Node with what it imports into one file of a folder, all but what is loaded apart. */
export async function bundleProgram(entry, outDir, output, loadedApart = LOADED_APART) {
  const { build } = await import('vite');
  mkdirSync(outDir, { recursive: true });
  await build({ root, configFile: false, logLevel: 'error', ssr: { noExternal: true, external: loadedApart }, build: { ssr: entry, target: 'node20', outDir, emptyOutDir: false, copyPublicDir: false, rolldownOptions: { output: { ...output, codeSplitting: false } } } });
}

/**
 * Bundles the command and the packages that it uses when its sources are newer than the bundle, or there is none: one file starts in a fraction of the time that all of them take.
 * Gives the bundle's path. It is renamed into place, so that commands started side by side never see half of one.
 */
export async function ensureCommand() {
  const bundle = join(root, 'build/limner.cjs');
  const sources = ['cli', 'src/core', 'src/formats', 'src/engine', 'package-lock.json'];
  if (changedAt(bundle) < Math.max(...sources.map(latest))) {
    const fileName = `limner-${process.pid}.cjs`;
    await bundleProgram(join(root, 'cli/limner.ts'), join(root, 'build'), { entryFileNames: fileName, format: 'cjs' });
    renameSync(join(root, 'build', fileName), bundle);
  }
  return bundle;
}
