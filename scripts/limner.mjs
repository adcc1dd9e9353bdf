import { spawnSync } from 'node:child_process';
import { ensurePackages, root } from './setup.mjs';

ensurePackages();
// npm sets INIT_CWD to where the person stands; paths on the command line are meant from there.
const result = spawnSync(process.execPath, ['--import', new URL('../node_modules/tsx/dist/loader.mjs', import.meta.url).href, `${root}/cli/limner.ts`, ...process.argv.slice(2)], {
  cwd: process.env.INIT_CWD ?? process.cwd(),
  stdio: 'inherit',
});
process.exit(result.status ?? 1);
