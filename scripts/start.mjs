import { ensureBuild } from './build.mjs';
import { ensurePackages, run } from './setup.mjs';

ensurePackages();
ensureBuild();
run(process.execPath, ['--import', 'tsx', 'server/main.ts']);
