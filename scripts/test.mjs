import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { ensureBuild, ensureDemo } from './build.mjs';
import { bin, ensurePackages, root } from './setup.mjs';

/** Chromium for the browser tests: the one that is there, else Debian's, where apt can bring it. */
function ensureChromium() {
  const wished = process.env.LIMNER_CHROMIUM ?? '/usr/bin/chromium';
  if (existsSync(wished)) return true;
  process.stderr.write('Setting up Chromium, once...\n');
  for (const args of [['update', '-qq'], ['install', '-y', '-qq', 'chromium']]) {
    const result = spawnSync('apt-get', args, { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
    if (result.status !== 0) break;
  }
  return existsSync(wished);
}

let passed = 0;
let failed = 0;

/** Runs one part of the tests, shows its output and adds up what it counted. */
function part(name, args, count, env = {}) {
  process.stdout.write(`\n== ${name}\n`);
  const result = spawnSync(process.execPath, args, { cwd: root, encoding: 'utf8', maxBuffer: 1 << 28, env: { ...process.env, FORCE_COLOR: '0', NO_COLOR: '1', ...env }, stdio: ['ignore', 'pipe', 'inherit'] });
  process.stdout.write(result.stdout ?? '');
  const [good, bad] = count(result.stdout ?? '', result.status === 0);
  passed += good;
  // A part that ended badly without counting a failure has failed as a whole.
  failed += result.status === 0 ? bad : Math.max(1, bad);
}

const whole = (_output, fine) => (fine ? [1, 0] : [0, 1]);
const number = (pattern, output) => Number(pattern.exec(output)?.[1] ?? 0);

ensurePackages();
ensureDemo();
for (const project of ['core', 'node']) part(`types: ${project}`, [bin('tsc'), '-p', `tsconfig.${project}.json`], whole);
part('types: application', [bin('vue-tsc'), '-p', 'tsconfig.app.json'], whole);
part('types: tests of components', [bin('vue-tsc'), '-p', 'tsconfig.interface-tests.json'], whole);
part('lint', [bin('eslint'), '.', '--max-warnings', '0'], whole);
part('unit', [bin('vitest'), 'run'], (output) => [number(/Tests\s+(?:\d+ failed \| )?(\d+) passed/, output), number(/Tests\s+(\d+) failed/, output)]);
ensureBuild();
if (ensureChromium()) {
  part('browser', [bin('playwright'), 'test'], (output) => [number(/(\d+) passed/, output) + number(/(\d+) flaky/, output), number(/(\d+) failed/, output)]);
} else {
  process.stdout.write('\n== browser\nThere is no Chromium at /usr/bin/chromium and apt could not bring one. Install it, or name one in LIMNER_CHROMIUM.\n');
  failed += 1;
}
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 ? 0 : 1);
