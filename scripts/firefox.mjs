import { existsSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { ensureBuild } from './build.mjs';
import { bin, ensurePackages, root } from './setup.mjs';

/** The road on a demo job in Firefox: Debian's, which apt brings where it can, or the one that LIMNER_FIREFOX names. */
const wished = process.env.LIMNER_FIREFOX ?? '/usr/bin/firefox-esr';
ensurePackages();
ensureBuild();
if (!existsSync(wished)) {
  process.stderr.write('Setting up Firefox, once...\n');
  for (const args of [['update', '-qq'], ['install', '-y', '-qq', 'firefox-esr']]) spawnSync('apt-get', args, { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
}
if (!existsSync(wished)) {
  process.stderr.write(`There is no Firefox at ${wished} and apt could not bring one. Install firefox-esr, or name one in LIMNER_FIREFOX.\n`);
  process.exit(1);
}
process.exit(spawnSync(process.execPath, [bin('playwright'), 'test', 'firefox'], { cwd: root, stdio: 'inherit' }).status ?? 1);
