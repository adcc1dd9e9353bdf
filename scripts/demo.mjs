import { ensurePackages, run } from './setup.mjs';

ensurePackages();
run(process.execPath, ['--import', 'tsx', 'demo/build.ts']);
