import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { setPriority } from 'node:os';
import { ensureBuild, ensureDemo } from './build.mjs';
import { bin, ensurePackages, root } from './setup.mjs';

/** Ends with the code of a program, or with 1 when it cannot be started. */
const codeOf = (child) => new Promise((done) => child.on('error', () => done(1)).on('close', done));

/** Chromium for the browser tests: the one that is there, else Debian's, where apt can bring it. Other parts run while it comes. */
async function ensureChromium() {
  const wished = process.env.LIMNER_CHROMIUM ?? '/usr/bin/chromium';
  if (existsSync(wished)) return true;
  process.stderr.write('Setting up Chromium, once...\n');
  for (const args of [['update', '-qq'], ['install', '-y', '-qq', 'chromium']]) {
    if ((await codeOf(spawn('apt-get', args, { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }))) !== 0) break;
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

/** Runs one part of the tests; its output is shown once it ends. @param priority of the process: 0, or up to 19 for what gives way to others. */
async function part(name, args, count, priority = 0) {
  const child = spawn(process.execPath, args, { cwd: root, env: { ...process.env, FORCE_COLOR: '0', NO_COLOR: '1' }, stdio: ['ignore', 'pipe', 'inherit'] });
  if (priority !== 0) setPriority(child.pid, priority);
  let output = '';
  child.stdout.setEncoding('utf8').on('data', (text) => (output += text));
  const code = await codeOf(child);
  told(name, output, code === 0, count);
}

const whole = (_output, fine) => (fine ? [1, 0] : [0, 1]);
const number = (pattern, output) => Number(pattern.exec(output)?.[1] ?? 0);

/** What one core does alone, in what the tests leave of both: the tests wait for answers now and then. */
async function besideTests() {
  const parts = [
    ['types: core', bin('tsc'), '-p', 'tsconfig.core.json'],
    ['types: application', bin('vue-tsc'), '-p', 'tsconfig.app.json'],
    ['types: tests of components', bin('vue-tsc'), '-p', 'tsconfig.interface-tests.json'],
    ['types: node', bin('tsc'), '-p', 'tsconfig.node.json'],
    ['lint', bin('eslint'), '.', '--max-warnings', '0'],
  ];
  for (const [name, ...args] of parts) await part(name, args, whole, 19);
}

ensurePackages();
ensureDemo();
const chromium = ensureChromium();
const beside = besideTests();
await part('unit', [bin('vitest'), 'run'], (output) => [number(/Tests\s+(?:\d+ failed \| )?(\d+) passed/, output), number(/Tests\s+(\d+) failed/, output)]);
ensureBuild();
if (await chromium) {
  await part('browser', [bin('playwright'), 'test'], (output) => [number(/(\d+) passed/, output) + number(/(\d+) flaky/, output), number(/(\d+) failed/, output)]);
} else {
  process.stdout.write('\n== browser\nThere is no Chromium at /usr/bin/chromium and apt could not bring one. Install it, or name one in LIMNER_CHROMIUM.\n');
  failed += 1;
}
await beside;
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exit(failed === 0 ? 0 : 1);
