import { ensurePackages, run } from './setup.mjs';

ensurePackages();
ensurePackages('bench');
run(process.execPath, ['--import', 'tsx', 'bench/main.ts', ...process.argv.slice(2)]);
