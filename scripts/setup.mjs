import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));

/** Runs a command in the project, its output shown; ends this process with its code when it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (result.error) throw result.error;
  if (result.status !== 0) process.exit(result.status ?? 1);
}

/** Installs the packages of a folder when they are missing or older than its lockfile. */
export function ensurePackages(folder = '.') {
  const at = new URL(`../${folder}/`, import.meta.url);
  const stamp = new URL('node_modules/.limner-lock', at);
  const lock = readFileSync(new URL('package-lock.json', at), 'utf8');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  process.stderr.write('Setting up packages, once...\n');
  // The bench's libraries name platform packages that a lockfile of another platform leaves out; their versions are exact all the same.
  const how = folder === '.' ? ['ci'] : ['install', '--no-save'];
  // Quiet on standard output, which belongs to the command that needed this.
  run('npm', [...how, '--no-audit', '--no-fund', '--loglevel=error'], { cwd: fileURLToPath(at), stdio: ['ignore', 2, 'inherit'] });
  writeFileSync(stamp, readFileSync(new URL('package-lock.json', at), 'utf8'));
}

/** Path of a program that a package installed. */
export const bin = (name) => fileURLToPath(new URL(`../node_modules/.bin/${name}`, import.meta.url));

/** Latest change of a file, 0 when it does not exist. */
export const changedAt = (path) => (existsSync(path) ? statSync(path).mtimeMs : 0);
