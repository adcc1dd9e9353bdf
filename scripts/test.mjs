import { spawn, spawnSync } from 'node:child_process';
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

/** Shows the output of one part of the tests and adds up what it counted. */
function told(name, output, isFine, count) {
  process.stdout.write(`\n== ${name}\n${output}`);
  const [good, bad] = count(output, isFine);
  passed += good;
  // A part that ended badly without counting a failure has failed as a whole.
  failed += isFine ? bad : Math.max(1, bad);
}

/** Runs one part of the tests; its output is shown once it ends. */
function part(name, args, count) {
  return new Promise((done) => {
    const child = spawn(process.execPath, args, { cwd: root, env: { ...process.env, FORCE_COLOR: '0', NO_COLOR: '1' }, stdio: ['ignore', 'pipe', 'inherit'] });
    let output = '';
    child.stdout.setEncoding('utf8').on('data', (text) => (output += text));
    child.on('close', (code) => {
      told(name, output, code === 0, count);
      done();
    });
  });
}

/** Runs parts that each keep one core busy, two at a time. */
async function twoAtATime(parts) {
  const left = [...parts];
  const next = async () => {
    for (let each = left.shift(); each !== undefined; each = left.shift()) await part(...each);
  };
  await Promise.all([next(), next()]);
}

const whole = (_output, fine) => (fine ? [1, 0] : [0, 1]);
const number = (pattern, output) => Number(pattern.exec(output)?.[1] ?? 0);

ensurePackages();
ensureDemo();
// The longest first.
await twoAtATime([
  ['lint', [bin('eslint'), '.', '--max-warnings', '0'], whole],
  ['types: application', [bin('vue-tsc'), '-p', 'tsconfig.app.json'], whole],
  ['types: node', [bin('tsc'), '-p', 'tsconfig.node.json'], whole],
  ['types: tests of components', [bin('vue-tsc'), '-p', 'tsconfig.interface-tests.json'], whole],
  ['types: core', [bin('tsc'), '-p', 'tsconfig.core.json'], whole],
]);
await part('unit', [bin('vitest'), 'run'], (output) => [number(/Tests\s+(?:\d+ failed \| )?(\d+) passed/, output), number(/Tests\s+(\d+) failed/, output)]);
ensureBuild();
if (ensureChromium()) {
  await part('browser', [bin('playwright'), 'test'], (output) => [number(/(\d+) passed/, output) + number(/(\d+) flaky/, output), number(/(\d+) failed/, output)]);
} else {
  process.stdout.write('\n== browser\nThere is no Chromium at /usr/bin/chromium and apt could not bring one. Install it, or name one in LIMNER_CHROMIUM.\n');
  failed += 1;
}
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 ? 0 : 1);
